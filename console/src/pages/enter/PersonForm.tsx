import { Button, PasswordInput, Stack, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { Failure } from '../../parts/Failure';

/** Signs in with an account of the directory. The password goes to the service alone, and is kept nowhere. */
export function PersonForm({ directory, entered }: { directory: string; entered: () => Promise<void> }) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const signIn = useMutation({
    mutationFn: () => need(api.POST('/api/sign-in/person', { body: { name, password } })),
    onSuccess: entered,
    onSettled: () => setPassword(''),
  });
  return (
    <form
      aria-label="Sign in with your account"
      onSubmit={(e) => {
        e.preventDefault();
        signIn.mutate();
      }}
    >
      <Stack>
        {signIn.error && <Failure error={signIn.error} />}
        <TextInput
          label="Your logon name"
          description={`In the directory ${directory}: only the logon name, such as a.brandt.`}
          autoComplete="username"
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
          data-autofocus
        />
        <PasswordInput
          label="Your password"
          autoComplete="current-password"
          value={password}
          onChange={(e) => setPassword(e.currentTarget.value)}
        />
        <Button type="submit" loading={signIn.isPending} disabled={!name.trim() || !password}>
          Sign in with your account
        </Button>
      </Stack>
    </form>
  );
}
