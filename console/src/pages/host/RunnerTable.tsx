import { createColumnHelper } from '@tanstack/react-table';
import type { HostRunnerView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';

const kinds: Record<HostRunnerView['kind'], string> = { task: 'scheduled task', pool: 'web application pool' };
const column = createColumnHelper<HostRunnerView>();
const columns = [
  column.accessor('name', {
    header: 'name',
    cell: ({ row }) => (
      <>
        {row.original.name}
        {row.original.disabled && <span className="soft"> disabled</span>}
      </>
    ),
  }),
  column.accessor((r) => kinds[r.kind], { id: 'kind', header: 'what' }),
  column.accessor('account', {
    header: 'runs as',
    cell: ({ row }) => (
      <>
        <code>{row.original.account}</code>
        <div className="soft">{row.original.identity}</div>
      </>
    ),
  }),
  column.accessor((r) => (r.keepsPassword ? 'kept with it: renew it here too' : 'none'), {
    id: 'password',
    header: 'password',
  }),
];

/** Scheduled tasks and web application pools that run as an account. */
export function RunnerTable({ runners }: { runners: HostRunnerView[] }) {
  return (
    <DataTable
      label="tasks and pools"
      rows={runners}
      columns={columns}
      empty="No scheduled task or web application pool runs as an account here."
    />
  );
}
