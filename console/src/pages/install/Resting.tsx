import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { run as runQuery, runs as runsQuery } from '../../api/queries';
import type { JobView, StepView } from '../../api/schema.gen';
import { StepDecision } from '../runs/StepDecision';
import { isAtRest, toDecide } from '../runs/toDecide';

interface Props {
  install: string;
  /** The steps of the worklist that are about the right in question. */
  steps: StepView[];
  mayDecide: boolean;
  follow: (run: JobView) => void;
}

/** A run of the install that stands still: what can be said of the steps of one right here, and the way to the rest. */
export function Resting({ install, steps, mayDecide, follow }: Props) {
  const runs = useQuery(runsQuery({ install }));
  const id = runs.data?.items.find(isAtRest)?.id;
  const run = useQuery({ ...runQuery(id ?? ''), enabled: id !== undefined });
  if (!run.data) return null;
  const ids = new Set(steps.map((s) => s.id));
  const own = toDecide(run.data).filter((s) => s.stepId && ids.has(s.stepId));
  return (
    <>
      {mayDecide &&
        own.map((s) => (
          <StepDecision key={`${s.number} ${s.state} ${s.byPerson}`} run={run.data.id} step={s} onSaid={follow} />
        ))}
      <p>
        <Link to="/runs/$id" params={{ id: run.data.id }}>
          The {run.data.kind} that {run.data.state === 'failed' ? 'failed' : 'waits'}, whole
        </Link>
      </p>
    </>
  );
}
