import { Button, Code, CopyButton, Group, PasswordInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { Failure } from '../../parts/Failure';

interface Props {
  estate: string;
  account: string;
  /** Whether a password waits to be handed over. */
  waits: boolean;
  mayGrant: boolean;
}

/** Does the password that one was given work? And the one that waits, shown once. */
export function Try({ estate, account, waits, mayGrant }: Props) {
  const queries = useQueryClient();
  const [typed, setTyped] = useState('');
  const params = { path: { name: estate, account } };
  const attempt = useMutation({
    mutationFn: () =>
      need(api.POST('/api/estates/{name}/passwords/{account}/try', { params, body: { password: typed || null } })),
    onSettled: () => setTyped(''),
  });
  const show = useMutation({
    mutationFn: () => need(api.POST('/api/estates/{name}/passwords/{account}/show', { params })),
    onSettled: () => void queries.invalidateQueries(),
  });
  return (
    <section aria-label="try and hand over">
      <h2>Does it work?</h2>
      <p className="soft">
        Tests one sign-in; not done if a failure would lock the account. Left empty, the stored password is tested.
      </p>
      <Group align="flex-end" gap="sm">
        <PasswordInput
          label="The password"
          autoComplete="off"
          value={typed}
          onChange={(e) => setTyped(e.currentTarget.value)}
          w={240}
        />
        <Button variant="default" onClick={() => attempt.mutate()} loading={attempt.isPending} disabled={!mayGrant}>
          Try it
        </Button>
        {waits && (
          <Button variant="default" onClick={() => show.mutate()} loading={show.isPending} disabled={!mayGrant}>
            Show the new password, once
          </Button>
        )}
        {!mayGrant && <span className="soft">You need the granter role to test it and take it over.</span>}
      </Group>
      <div role="status" aria-live="polite">
        {attempt.data && (
          <p>
            <strong>
              {attempt.data.works === true
                ? '✓ works'
                : attempt.data.works === false
                  ? '✗ does not work'
                  : '· not tried'}
            </strong>{' '}
            {attempt.data.words}
          </p>
        )}
        {show.data && (
          <Group gap="sm" mt="sm">
            <Code>{show.data.password}</Code>
            <CopyButton value={show.data.password}>
              {({ copied, copy }) => (
                <Button size="compact-sm" variant="default" onClick={copy}>
                  {copied ? 'Copied' : 'Copy'}
                </Button>
              )}
            </CopyButton>
            <span className="soft">It is no longer stored: this page forgets it when you leave.</span>
          </Group>
        )}
      </div>
      {attempt.error && <Failure error={attempt.error} />}
      {show.error && <Failure error={show.error} />}
    </section>
  );
}
