import { Button, Container, Stack, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { useEffect, useRef, useState } from 'react';
import { api, need } from '../../api/client';
import { signInWays } from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { PersonForm } from './PersonForm';

const route = getRouteApi('/enter');

/** Signs in with the code of a one-time link. The code is in the fragment, which never leaves the browser by itself. */
export function EnterPage() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { to } = route.useSearch();
  const [link, setLink] = useState('');
  const ways = useQuery(signInWays);
  const entered = async () => {
    queries.clear();
    await navigate({ href: to ?? '/' });
  };
  const signIn = useMutation({
    mutationFn: (code: string) => need(api.POST('/api/sign-in', { body: { code } })),
    onSuccess: entered,
  });
  const tried = useRef('');
  const { mutate } = signIn;
  useEffect(() => {
    const open = () => {
      const code = window.location.hash.slice(1);
      if (!code || tried.current === code) return;
      tried.current = code; // a code is good once: React's second run in development must not spend it
      window.history.replaceState(null, '', window.location.pathname + window.location.search);
      mutate(code);
    };
    open();
    window.addEventListener('hashchange', open); // a link that is opened while this page is there
    return () => window.removeEventListener('hashchange', open);
  }, [mutate]);
  return (
    <Container size="xs" pt={96} component="main">
      <Stack>
        <h1>Just Right</h1>
        {ways.data?.directory && <PersonForm directory={ways.data.directory} entered={entered} />}
        <p className="soft">
          {ways.data?.directory ? 'Or open' : 'Open'} the one-time sign-in link that the service printed when it
          started, or paste it here. A new one is printed when the service is started with{' '}
          <code>--JustRight:SignInLinks 1</code>.
        </p>
        {signIn.error && <Failure error={signIn.error} />}
        <form
          onSubmit={(e) => {
            e.preventDefault();
            signIn.mutate(link.slice(link.indexOf('#') + 1).trim());
          }}
        >
          <Stack>
            <TextInput
              label="Sign-in link"
              type="password"
              autoComplete="off"
              value={link}
              onChange={(e) => setLink(e.currentTarget.value)}
            />
            <Button
              type="submit"
              variant={ways.data?.directory ? 'default' : 'filled'}
              loading={signIn.isPending}
              disabled={link.trim() === ''}
            >
              Sign in
            </Button>
          </Stack>
        </form>
      </Stack>
    </Container>
  );
}
