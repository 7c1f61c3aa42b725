import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { worklist as worklistQuery } from '../../api/queries';
import type { FitView, JobView, JudgementView, StepView, WorklistView } from '../../api/schema.gen';
import { ready } from './chosenSteps';
import { MakeStep } from './MakeStep';
import { Resting } from './Resting';
import { AcceptForm } from './review/AcceptForm';
import { offOf } from './review/off';
import { useMay } from '../../parts/useMay';

interface Props {
  right: JudgementView;
  fit: FitView;
  follow: (run: JobView) => void;
}

/** What one can do about a right now: make its step, accept it for a time, decide about a run that waits, look further. */
export function RightActs({ right, fit, follow }: Props) {
  const list = useQuery(worklistQuery(fit.install));
  const mayGrant = useMay('granter');
  const left = list.data?.notOffered.find((n) => n.for === right.id);
  return (
    <section aria-label="What can be done" className="acts">
      {list.data?.leftToSetup.includes(right.id) && <p>The product’s setup gives it.</p>}
      {left && <p>It is left to you: {left.reason}</p>}
      {list.data &&
        stepsOf(list.data, right).map((step) => (
          <Step key={step.id} list={list.data} step={step} mayGrant={mayGrant} follow={follow} />
        ))}
      <Accept right={right} fit={fit} mayAccept={mayGrant} />
      <Resting install={fit.install} steps={stepsOf(list.data, right)} mayDecide={mayGrant} follow={follow} />
      <ul className="ways">
        {right.kind === 'directory' && !right.branch && (
          <li>
            <Link to="/trace" search={{ estate: fit.estate, account: right.account }}>
              Trace what it can do in the directory
            </Link>
          </li>
        )}
        <li>
          <Link to="/installs/$name/accounts/$account" params={{ name: fit.install, account: right.account }}>
            All that {right.account} holds
          </Link>
        </li>
        <li>
          <Link
            to="/passwords/$estate/$account"
            params={{ estate: fit.estate, account: fit.accounts.find((a) => a.key === right.account)?.name ?? '' }}
          >
            The password of {right.account}
          </Link>
        </li>
      </ul>
    </section>
  );
}

/** The steps of a worklist that give a right or take it away. */
const stepsOf = (list: WorklistView | undefined, right: JudgementView) =>
  list ? [...list.give, ...list.remove].filter((step) => step.for.includes(right.id)) : [];

interface StepProps {
  list: WorklistView;
  step: StepView;
  mayGrant: boolean;
  follow: (run: JobView) => void;
}

/** One step in words, and the button that makes it or why that cannot be done yet. */
function Step({ list, step, mayGrant, follow }: StepProps) {
  const remove = list.remove.includes(step);
  const first = remove && ready(list.give).length > 0 ? 'First grant, then verify, then remove.' : null;
  const why = step.blocked ?? first ?? (mayGrant ? null : 'A granter or an owner makes it.');
  const words = (before: number) =>
    remove ? 'Take it away…' : before > 0 ? `Give it, with ${before} before it…` : 'Give it…';
  return (
    <>
      <p>
        {step.words} <span className="soft">(the {step.team} team)</span>
      </p>
      {why && <p className="soft">{why}</p>}
      {!step.blocked && <MakeStep list={list} step={step} words={words} disabled={why !== null} follow={follow} />}
    </>
  );
}

/** A deviation can be accepted, by somebody who may, for a reason and until a day. */
function Accept({ right, fit, mayAccept }: { right: JudgementView; fit: FitView; mayAccept: boolean }) {
  const [accepting, setAccepting] = useState(false);
  const off = offOf(fit).find((o) => o.target === right.id);
  if (!off || off.accepted) return null;
  return (
    <p>
      <Button size="compact-sm" variant="default" disabled={!mayAccept} onClick={() => setAccepting(true)}>
        Accept it for a time…
      </Button>
      {accepting && <AcceptForm install={fit.install} off={off} close={() => setAccepting(false)} />}
    </p>
  );
}
