import { Button } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { run as runQuery } from '../../api/queries';
import type { JobView } from '../../api/schema.gen';
import { useJob } from '../../api/useJob';
import { useRejoin } from '../../api/useRejoin';
import { Failure } from '../../parts/Failure';
import { JobProgress } from '../../parts/JobProgress';
import { StepTable } from '../../parts/StepTable';
import { Time } from '../../parts/Time';
import { UndoDialog } from '../../parts/UndoDialog';
import { StepDecision } from './StepDecision';
import { isAtRest, toDecide } from './toDecide';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { Simulated } from '../../parts/Simulated';
import { useMay } from '../../parts/useMay';

const route = getRouteApi('/frame/runs/$id');

/** One run: how far has it come, what does it wait for, and what can be done about it? */
export function RunPage() {
  const { id } = route.useParams();
  return <OneRun key={id} id={id} />;
}

function OneRun({ id }: { id: string }) {
  const may = useMay('granter');
  const navigate = useNavigate();
  const query = useQuery(runQuery(id));
  const { followed, follow, followId } = useJob();
  const [undoing, setUndoing] = useState(false);
  const params = { path: { id } };
  const goOn = useMutation({
    mutationFn: () => need(api.POST('/api/runs/{id}/continue', { params })),
    onSuccess: follow,
  });
  const stop = useMutation({
    mutationFn: () => need(api.POST('/api/runs/{id}/stop', { params })),
    onSuccess: () => void query.refetch(),
  });
  /** A renewal goes back by further steps of its own; anything else is undone by another run. */
  const undone = (by: JobView) => {
    if (by.id === id) follow(by);
    else void navigate({ to: '/runs/$id', params: { id: by.id } });
  };
  const read = query.data;
  const under = read !== undefined && (read.state === 'running' || read.state === 'queued');
  useRejoin(followed, followId, under ? read : undefined, query.dataUpdatedAt);
  if (!query.data) return <PageWithout title="Run" error={query.error} />;
  const run = query.data;
  const running = followed?.running === true;
  const steps = run.steps.map((s) => (running ? { ...s, ...followed?.steps[s.number] } : s));
  const atRest = !running && isAtRest(run);
  return (
    <>
      <div className="head">
        <PageTitle>{`${run.kind} of ${run.subject}`}</PageTitle>
        <span className="tag">{running ? 'running' : run.state}</span>
        <Simulated of={run.simulated} />
        <span className="grow" />
        {run.canBeStopped && (
          <Button variant="default" disabled={!may} loading={stop.isPending} onClick={() => stop.mutate()}>
            Stop after this step
          </Button>
        )}
        {!running && run.canContinue && (
          <Button disabled={!may} loading={goOn.isPending} onClick={() => goOn.mutate()}>
            {run.state === 'stopped' ? 'Go on' : 'Try again what failed'}
          </Button>
        )}
        {!running && run.canBeUndone && (
          <Button variant="default" disabled={!may} onClick={() => setUndoing(true)}>
            Undo…
          </Button>
        )}
      </div>
      <p className="soft">
        Begun by {run.startedBy}, <Time value={run.createdAt} />
        {run.endedAt && (
          <>
            ; ended <Time value={run.endedAt} />
          </>
        )}
        {run.undoes && (
          <>
            ; undoes{' '}
            <Link to="/runs/$id" params={{ id: run.undoes }}>
              another run
            </Link>
          </>
        )}
        .
      </p>
      <div role="status" aria-live="polite">
        {running && followed?.last ? <JobProgress event={followed.last} running /> : <p>{run.message}</p>}
      </div>
      {stop.error && <Failure error={stop.error} />}
      {goOn.error && <Failure error={goOn.error} />}
      {atRest &&
        may &&
        toDecide(run).map((s) => (
          <StepDecision key={`${s.number} ${s.state} ${s.byPerson}`} run={run.id} step={s} onSaid={follow} />
        ))}
      {run.words.map((w) => (
        <p key={w} className="soft">
          {w}
        </p>
      ))}
      <StepTable
        steps={steps.map((s) => ({
          ...s,
          note: s.heldBy ? `held back by step ${s.heldBy}, which failed` : (s.after ?? s.before ?? ''),
        }))}
      />
      <UndoDialog run={undoing ? id : null} onClose={() => setUndoing(false)} onUndone={undone} />
    </>
  );
}
