import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { worklist as worklistQuery } from '../../api/queries';
import type { JobView, JudgementView, MatrixView, StepView, WorklistView } from '../../api/schema.gen';
import { ready } from './chosenSteps';
import { MakeStep } from './MakeStep';
import { Resting } from './Resting';
import { AcceptForm } from './review/AcceptForm';
import { isOff, offRight } from './review/off';
import { useMay } from '../../parts/useMay';

interface Props {
  right: JudgementView;
  matrix: MatrixView;
  follow: (run: JobView) => void;
}

/** What one can do about a right now: make its step, accept it for a time, decide about a run that waits, look further. */
export function RightActs({ right, matrix, follow }: Props) {
  const list = useQuery(worklistQuery(matrix.install));
  const mayGrant = useMay('granter');
  const key = matrix.rows.find((r) => r.name === right.account)?.key ?? '';
  const left = list.data?.notOffered.find((n) => n.for === right.id);
  return (
    <section aria-label="What can be done" className="acts">
      {list.data?.leftToSetup.includes(right.id) && <p>The product’s setup gives it.</p>}
      {left && <p>It is left to you: {left.reason}</p>}
      {list.data &&
        stepsOf(list.data, right).map((step) => (
          <Step key={step.id} list={list.data} step={step} mayGrant={mayGrant} follow={follow} />
        ))}
      <Accept right={right} install={matrix.install} mayAccept={mayGrant} />
      <Resting install={matrix.install} steps={stepsOf(list.data, right)} mayDecide={mayGrant} follow={follow} />
      <ul className="ways">
        {right.kind === 'directory' && !right.branch && (
          <li>
            <Link to="/trace" search={{ estate: matrix.estate, account: right.account }}>
              Trace what it can do in the directory
            </Link>
          </li>
        )}
        <li>
          <Link to="/installs/$name/accounts/$account" params={{ name: matrix.install, account: key }}>
            All that {right.account} holds
          </Link>
        </li>
        <li>
          <Link to="/passwords/$estate/$account" params={{ estate: matrix.estate, account: right.account }}>
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
function Accept({ right, install, mayAccept }: { right: JudgementView; install: string; mayAccept: boolean }) {
  const [accepting, setAccepting] = useState(false);
  if (!isOff(right) || right.accepted) return null;
  return (
    <p>
      <Button size="compact-sm" variant="default" disabled={!mayAccept} onClick={() => setAccepting(true)}>
        Accept it for a time…
      </Button>
      {accepting && <AcceptForm install={install} off={offRight(right)} close={() => setAccepting(false)} />}
    </p>
  );
}
