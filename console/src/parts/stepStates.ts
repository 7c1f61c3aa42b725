import type { JobStepView } from '../api/schema.gen';

/** How a step of a run stands, with a sign that tells it without colour. */
export const stepStates: Record<JobStepView['state'], string> = {
  waiting: '· waits',
  intended: '… begun',
  made: '✓ made',
  'already-so': '= already true',
  refused: '✗ failed',
  failed: '✗ failed',
  skipped: '– left out',
  abandoned: '– left out',
  dropped: '– dropped',
  undone: '↩ undone',
};
