import type { JobStepView, JobView } from '../../api/schema.gen';

/** Whether a run stands still and is not over: somebody's word lets it go on. */
export const isAtRest = (run: JobView) => run.state === 'failed' || run.state === 'waiting' || run.state === 'stopped';

/** The steps that wait for a word: all that failed or are for a person; of a renewal, which goes in order, the next one. */
export function toDecide(run: JobView): JobStepView[] {
  if (run.kind === 'renew') return run.steps.filter((s) => s.number === run.next);
  const asks = (s: JobStepView) =>
    s.state === 'failed' || s.state === 'refused' || (s.byPerson && s.state === 'waiting' && !s.heldBy);
  return run.steps.filter(asks);
}
