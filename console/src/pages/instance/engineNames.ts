import type { InstanceSummary } from '../../api/schema.gen';

/** What the families of database servers are called. */
export const engineNames: Record<InstanceSummary['engine'], string> = {
  sqlserver: 'SQL Server',
  postgresql: 'PostgreSQL',
};
