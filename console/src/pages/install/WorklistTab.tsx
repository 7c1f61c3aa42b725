import { Button } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { me, worklist as worklistQuery } from '../../api/queries';
import type { JobView } from '../../api/schema.gen';
import type { FollowedJob } from '../../api/useJob';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { Confirmation } from './Confirmation';
import { LdifButton } from './LdifButton';
import { InstallProposals } from './InstallProposals';
import { StepTable } from '../../parts/StepTable';

interface Props {
  name: string;
  followed: FollowedJob | null;
  follow: (job: JobView) => void;
  clear: () => void;
}

/** Whose they are: the account is the first part of each id. */
function byAccount(ids: string[]): string {
  const counts = new Map<string, number>();
  for (const id of ids) {
    const account = id.split('/')[0] ?? id;
    counts.set(account, (counts.get(account) ?? 0) + 1);
  }
  return [...counts].map(([account, count]) => `${account} ${count}`).join(', ');
}

/** The steps that must be made before, by their numbers. */
function after(steps: number[]): string {
  return steps.length === 0 ? '' : `; after ${steps.join(', ')}`;
}

/** What is left to do, in order, by team; and the buttons that do it after one confirmation. */
export function WorklistTab({ name, followed, follow, clear }: Props) {
  const worklist = useQuery(worklistQuery(name));
  const who = useQuery(me);
  const [asking, setAsking] = useState<'give' | 'remove' | null>(null);
  const grant = useMutation({
    mutationFn: (order: { remove: boolean; steps: string[] }) =>
      need(api.POST('/api/installs/{name}/grant', { params: { path: { name } }, body: order })),
    onSuccess: follow,
    onSettled: () => setAsking(null),
  });
  if (worklist.isPending) return <Loading />;
  if (worklist.error) return <Failure error={worklist.error} />;

  if (followed?.kind === 'grant') {
    return (
      <section aria-label="Being carried out">
        <StepTable steps={Object.values(followed.steps).map((s) => ({ ...s, note: s.after ?? s.before ?? '' }))} />
        <div className="head">
          <Link to="/runs/$id" params={{ id: followed.id }}>
            This run, and what can be done about it
          </Link>
          {!followed.running && (
            <Button variant="default" onClick={clear}>
              Show what is left
            </Button>
          )}
        </div>
      </section>
    );
  }

  const { give, remove, leftToSetup, notOffered, simulated } = worklist.data;
  const ready = (steps: typeof give) => steps.filter((s) => !s.blocked);
  const mayGrant = who.data?.role === 'granter' || who.data?.role === 'owner';
  const rows = (steps: typeof give) =>
    steps.map((s) => ({ ...s, state: s.blocked ? 'blocked' : '', note: s.blocked ?? s.why + after(s.hangsOn) }));
  const asked = asking === 'remove' ? ready(remove) : ready(give);
  return (
    <>
      {grant.error && <Failure error={grant.error} />}
      <InstallProposals name={name} follow={follow} />
      <div className="head">
        <h2>To give</h2>
        <span className="grow" />
        <LdifButton install={name} remove={false} disabled={ready(give).length === 0} />
        <Button disabled={ready(give).length === 0 || !mayGrant} onClick={() => setAsking('give')}>
          Grant these {ready(give).length}…
        </Button>
      </div>
      {give.length === 0 ? <p className="empty">Nothing left to grant.</p> : <StepTable steps={rows(give)} />}
      {leftToSetup.length > 0 && (
        <p className="soft">
          {leftToSetup.length} more come with the product's setup: {byAccount(leftToSetup)}.
        </p>
      )}
      <div className="head">
        <h2>To take away</h2>
        <span className="grow" />
        <LdifButton install={name} remove disabled={ready(remove).length === 0} />
        <Button
          variant="default"
          disabled={ready(remove).length === 0 || !mayGrant || ready(give).length > 0}
          onClick={() => setAsking('remove')}
        >
          Remove these {ready(remove).length}…
        </Button>
      </div>
      {remove.length > 0 && ready(give).length > 0 && <p className="soft">First grant, then verify, then remove.</p>}
      {remove.length === 0 ? <p className="empty">Nothing to remove.</p> : <StepTable steps={rows(remove)} />}
      {notOffered.length > 0 && (
        <ul>
          {notOffered.map((n) => (
            <li key={n.for + n.reason}>
              <code>{n.for}</code> is left to you: {n.reason}
            </li>
          ))}
        </ul>
      )}
      <Confirmation
        open={asking !== null}
        remove={asking === 'remove'}
        simulated={simulated}
        steps={asked}
        busy={grant.isPending}
        onCancel={() => setAsking(null)}
        onConfirm={() => grant.mutate({ remove: asking === 'remove', steps: asked.map((s) => s.id) })}
      />
    </>
  );
}
