import type { AccountSummary } from '../../api/schema.gen';

/** How an account or a group stands in the directory. */
export const stands: Record<AccountSummary['state'], string> = {
  there: '● there',
  disabled: '– disabled',
  'not-there': '◁ not there',
  unseen: '○ unseen',
};
