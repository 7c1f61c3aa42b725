import { Button, Group, PasswordInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../../api/client';
import type { JobView, SignInTestView } from '../../../api/schema.gen';
import type { FollowedJob } from '../../../api/useJob';
import { Failure } from '../../../parts/Failure';
import { Time } from '../../../parts/Time';
import { Checks } from './Checks';
import { Comparison } from './Comparison';
import { Simulated } from '../../../parts/Simulated';
import { useMay } from '../../../parts/useMay';

interface Props {
  name: string;
  last: SignInTestView | null;
  followed: FollowedJob | null;
  follow: (job: JobView) => void;
}

/** The sign-in test: started here, its checks as they come to their end, and who was found against who was expected. */
export function SignInTest({ name, last, followed, follow }: Props) {
  const mayNot = !useMay('planner');
  const [bind, setBind] = useState('');
  const [person, setPerson] = useState('');
  const start = useMutation({
    mutationFn: () =>
      need(
        api.POST('/api/installs/{name}/sign-in/tests', {
          params: { path: { name } },
          body: { bindPassword: bind || null, personPassword: person || null },
        }),
      ),
    onSuccess: follow,
    onSettled: () => {
      setBind('');
      setPerson('');
    },
  });
  const running = followed?.kind === 'sign-in' && followed.running;
  const checks = running ? followed.checks : (last?.checks ?? []);
  return (
    <section aria-label="test">
      <div className="head">
        <h2>Sign-in test</h2>
        {last && !running && (
          <span className="soft">
            {last.words}, <Time value={last.endedAt} />
          </span>
        )}
        <Simulated of={last?.simulated} />
      </div>
      <p className="soft">
        Does what the product will do, and changes nothing. Passwords are used once and stored nowhere. Left empty: the
        bind account&rsquo;s stored password is used, and nobody signs in.
      </p>
      <Group align="flex-end" gap="sm" mb="sm">
        <PasswordInput
          label="The bind account’s password"
          autoComplete="off"
          value={bind}
          onChange={(e) => setBind(e.currentTarget.value)}
          w={240}
        />
        <PasswordInput
          label="The person’s password"
          autoComplete="off"
          value={person}
          onChange={(e) => setPerson(e.currentTarget.value)}
          w={240}
        />
        <Button onClick={() => start.mutate()} loading={start.isPending || running} disabled={mayNot}>
          Try it
        </Button>
        {mayNot && <span className="soft">You need the planner role to run the test.</span>}
      </Group>
      {start.error && <Failure error={start.error} />}
      <div role="status" aria-live="polite">
        {running && <p className="soft">{followed.last?.text ?? 'waiting for its turn'}</p>}
        {followed?.kind === 'sign-in' && followed.last?.state === 'failed' && <p>{followed.last.text}</p>}
      </div>
      {checks.length > 0 ? <Checks checks={checks} /> : !running && <p className="empty">Not tested yet.</p>}
      {last && !running && (
        <>
          <Comparison what="people" compared={last.people ?? null} />
          <Comparison what="groups" compared={last.groups ?? null} />
        </>
      )}
    </section>
  );
}
