import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { runs as runsQuery, worklist as worklistQuery } from '../../api/queries';
import type { FitView, JobView, JudgementView, StepView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { ready, withStep } from './chosenSteps';
import { Confirmation } from './Confirmation';
import { useGrant } from './grant';
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
  const { give = [], remove = [] } = list.data ?? {};
  const gives = give.filter((s) => s.for.includes(right.id));
  const takes = remove.filter((s) => s.for.includes(right.id));
  const left = list.data?.notOffered.find((n) => n.for === right.id);
  return (
    <section aria-label="What can be done" className="acts">
      {list.data?.leftToSetup.includes(right.id) && <p>The product’s setup gives it.</p>}
      {left && <p>It is left to you: {left.reason}</p>}
      {gives.map((step) => (
        <Make key={step.id} step={step} steps={give} remove={false} fit={fit} whyNot={null} follow={follow} />
      ))}
      {takes.map((step) => (
        <Make
          key={step.id}
          step={step}
          steps={remove}
          remove
          fit={fit}
          whyNot={ready(give).length > 0 ? 'First grant, then verify, then remove.' : null}
          follow={follow}
        />
      ))}
      <Accept right={right} fit={fit} mayAccept={mayGrant} />
      <Resting install={fit.install} />
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

interface MakeProps {
  step: StepView;
  /** All steps of its kind: it may hang on some. */
  steps: StepView[];
  remove: boolean;
  fit: FitView;
  /** Why it cannot be made yet, or null. */
  whyNot: string | null;
  follow: (run: JobView) => void;
}

/** One step, with what it hangs on, after it was seen and confirmed. */
function Make({ step, steps, remove, fit, whyNot, follow }: MakeProps) {
  const [asking, setAsking] = useState(false);
  const grant = useGrant(fit.install, follow);
  const mayGrant = useMay('granter');
  const along = withStep(steps, new Set(), step.number);
  const asked = steps.filter((s) => along.has(s.number));
  const why = step.blocked ?? whyNot ?? (mayGrant ? null : 'A granter or an owner makes it.');
  return (
    <>
      <p>
        {step.words} <span className="soft">(the {step.team} team)</span>
      </p>
      {why && <p className="soft">{why}</p>}
      {grant.error && <Failure error={grant.error} />}
      {!step.blocked && (
        <Button size="compact-sm" disabled={why !== null} onClick={() => setAsking(true)}>
          {remove ? 'Take it away…' : asked.length > 1 ? `Give it, with ${asked.length - 1} before it…` : 'Give it…'}
        </Button>
      )}
      <Confirmation
        open={asking}
        remove={remove}
        simulated={fit.simulated}
        steps={asked}
        busy={grant.isPending}
        onCancel={() => setAsking(false)}
        onConfirm={() => grant.mutate({ remove, steps: asked.map((s) => s.id) }, { onSettled: () => setAsking(false) })}
      />
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

/** A run of the install that stopped at a step: there it is tried again, skipped or handed to a person. */
function Resting({ install }: { install: string }) {
  const runs = useQuery(runsQuery({ install }));
  const resting = runs.data?.items.find((r) => r.state === 'failed' || r.state === 'waiting' || r.state === 'stopped');
  if (!resting) return null;
  return (
    <p>
      <Link to="/runs/$id" params={{ id: resting.id }}>
        The {resting.kind} that {resting.state === 'failed' ? 'failed' : 'waits'}: retry a step, skip it, hand it over
      </Link>
    </p>
  );
}
