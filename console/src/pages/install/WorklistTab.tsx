import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { me, worklist as worklistQuery } from '../../api/queries';
import type { JobView, StepView, WorklistView } from '../../api/schema.gen';
import type { FollowedJob } from '../../api/useJob';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { allOf, type Chosen, ready, withoutStep, withStep } from './chosenSteps';
import { Confirmation } from './Confirmation';
import { useGrant } from './grant';
import { LdifButton } from './LdifButton';
import { InstallProposals } from './InstallProposals';
import { StepTable } from '../../parts/StepTable';
import { useMay } from '../../parts/useMay';

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

/** What is left to do, in order, by team; which of it is to be done; and the buttons that do it after one confirmation. */
export function WorklistTab({ name, followed, follow, clear }: Props) {
  const worklist = useQuery(worklistQuery(name));
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

  return <Left name={name} list={worklist.data} follow={follow} />;
}

/** Another whenever other steps can be made. */
const keyOf = (steps: StepView[]) =>
  ready(steps)
    .map((s) => s.id)
    .join();

function Left({ name, list, follow }: { name: string; list: WorklistView; follow: (job: JobView) => void }) {
  const { give, remove, leftToSetup, notOffered } = list;
  const first = ready(give).length > 0 ? 'First grant, then verify, then remove.' : null;
  return (
    <>
      <InstallProposals name={name} follow={follow} />
      {/* what was chosen is forgotten when other steps are left */}
      <Steps key={keyOf(give)} name={name} list={list} remove={false} whyNot={null} follow={follow} />
      {leftToSetup.length > 0 && (
        <p className="soft">
          {leftToSetup.length} more come with the product's setup: {byAccount(leftToSetup)}.
        </p>
      )}
      <Steps key={`-${keyOf(remove)}`} name={name} list={list} remove whyNot={first} follow={follow} />
      {notOffered.length > 0 && (
        <ul>
          {notOffered.map((n) => (
            <li key={n.for + n.reason}>
              <code>{n.for}</code> is left to you: {n.reason}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

interface StepsProps {
  name: string;
  list: WorklistView;
  remove: boolean;
  /** Why none of them can be made yet, or null. */
  whyNot: string | null;
  follow: (job: JobView) => void;
}

/** Steps that are left of one kind: those to make are chosen, confirmed, and made. */
function Steps({ name, list, remove, whyNot, follow }: StepsProps) {
  const who = useQuery(me);
  const steps = remove ? list.remove : list.give;
  const [chosen, setChosen] = useState<Chosen>(() => allOf(steps));
  const [asking, setAsking] = useState(false);
  const grant = useGrant(name, follow);
  const mayGrant = useMay('granter');
  const asked = ready(steps).filter((s) => chosen.has(s.number));
  const some = asked.length < ready(steps).length;
  const rows = steps.map((s: StepView) => ({
    ...s,
    state: s.blocked ? 'blocked' : '',
    note: s.blocked ?? s.why + after(s.hangsOn),
  }));
  const toggle = (step: number) =>
    setChosen((c) => (c.has(step) ? withoutStep(steps, c, step) : withStep(steps, c, step)));
  return (
    <>
      {grant.error && <Failure error={grant.error} />}
      <div className="head stays">
        <h2>{remove ? 'To take away' : 'To give'}</h2>
        {ready(steps).length > 1 && (
          <Button size="compact-sm" variant="subtle" onClick={() => setChosen(some ? allOf(steps) : new Set())}>
            {some ? 'Choose all' : 'Choose none'}
          </Button>
        )}
        <span className="grow" />
        <LdifButton install={name} remove={remove} disabled={ready(steps).length === 0} />
        <Button
          variant={remove ? 'default' : 'filled'}
          disabled={asked.length === 0 || !mayGrant || whyNot !== null}
          onClick={() => setAsking(true)}
        >
          {remove ? 'Remove' : 'Grant'} these {asked.length}…
        </Button>
      </div>
      {steps.length > 0 && whyNot && <p className="soft">{whyNot}</p>}
      {steps.length > 0 && who.data && !mayGrant && (
        <p className="soft">You are a {who.data.role}: a granter or an owner makes these.</p>
      )}
      {steps.length === 0 ? (
        <p className="empty">{remove ? 'Nothing to remove.' : 'Nothing left to grant.'}</p>
      ) : (
        <StepTable
          label={remove ? 'Steps to take away' : 'Steps to give'}
          steps={rows}
          {...(mayGrant ? { choice: { chosen, onToggle: toggle } } : {})}
        />
      )}
      <Confirmation
        open={asking}
        remove={remove}
        simulated={list.simulated}
        steps={asked}
        busy={grant.isPending}
        onCancel={() => setAsking(false)}
        onConfirm={(passwords) =>
          grant.mutate({ remove, steps: asked.map((s) => s.id), passwords }, { onSettled: () => setAsking(false) })
        }
      />
    </>
  );
}
