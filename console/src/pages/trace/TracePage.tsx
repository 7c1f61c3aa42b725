import { useMutation, useQuery } from '@tanstack/react-query';
import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { useEffect, useState } from 'react';
import { api, need } from '../../api/client';
import { estates as estatesQuery, trace as traceQuery, traces as tracesQuery } from '../../api/queries';
import { useJob } from '../../api/useJob';
import { Failure } from '../../parts/Failure';
import { JobProgress } from '../../parts/JobProgress';
import { UndoDialog } from '../../parts/UndoDialog';
import { EarlierJobs } from './EarlierJobs';
import { orderOf, type TraceFields } from './order';
import { TraceAnswer } from './TraceAnswer';
import { TraceForm } from './TraceForm';
import { PageTitle } from '../../parts/PageTitle';
import { Simulated } from '../../parts/Simulated';
import { useMay } from '../../parts/useMay';

const route = getRouteApi('/frame/trace');

/** Why can this account not do that in the directory, and what would fix it? */
export function TracePage() {
  const { job, ...fields } = route.useSearch();
  const navigate = useNavigate();
  const estates = useQuery(estatesQuery);
  const name = fields.estate ?? estates.data?.[0]?.name;
  const estate = estates.data?.find((e) => e.name === name);
  const answer = useQuery({ ...traceQuery(job ?? ''), enabled: !!job });
  const earlier = useQuery({ ...tracesQuery(name ?? ''), enabled: !!name });
  const [undoing, setUndoing] = useState<string | null>(null);
  const { followed, follow } = useJob();
  const may = useMay('granter');

  const start = useMutation({
    mutationFn: (asked: TraceFields) =>
      need(
        api.POST('/api/estates/{name}/trace', {
          params: { path: { name: asked.estate ?? name ?? '' } },
          body: orderOf(asked),
        }),
      ),
    onSuccess: follow,
  });
  const fix = useMutation({
    mutationFn: ({ id, remedy }: { id: string; remedy: string }) =>
      need(api.POST('/api/jobs/{id}/fix', { params: { path: { id } }, body: { remedy } })),
    onSuccess: follow,
  });

  const done = followed && !followed.running && followed.last?.state === 'done' ? followed.id : null;
  const ended = earlier.data?.find((j) => j.id === done && j.hasTrace)?.id ?? null;
  useEffect(() => {
    if (ended) void navigate({ to: '/trace', search: (old) => ({ ...old, job: ended }) });
  }, [ended, navigate]);

  const error = start.error ?? fix.error ?? answer.error ?? estates.error;
  return (
    <>
      <div className="head">
        <PageTitle>Trace</PageTitle>
        <span className="soft">Why can this account not do that in the directory, and what would fix it?</span>
        <Simulated of={estate?.simulated} />
      </div>
      <TraceForm
        key={JSON.stringify(fields)}
        initial={{ ...fields, estate: name }}
        estates={estates.data?.map((e) => e.name) ?? []}
        branches={estate?.branches ?? []}
        busy={followed?.running === true || start.isPending}
        onTrace={(asked) => {
          start.mutate(asked);
        }}
      />
      <div role="status" aria-live="polite">
        {followed?.last && (followed.running || followed.last.state !== 'done' || followed.kind !== 'trace') && (
          <JobProgress event={followed.last} running={followed.running} />
        )}
      </div>
      {error && <Failure error={error} />}
      {answer.data && (
        <TraceAnswer trace={answer.data} may={may} onFix={(remedy) => fix.mutate({ id: answer.data.id, remedy })} />
      )}
      <h2>Earlier</h2>
      {earlier.data && name && (
        <EarlierJobs estate={name} jobs={earlier.data} may={may} onUndo={(job) => setUndoing(job.id)} />
      )}
      <UndoDialog run={undoing} onClose={() => setUndoing(null)} onUndone={follow} />
    </>
  );
}
