import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { runs as runsQuery } from '../../api/queries';
import type { JobView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { Time } from '../../parts/Time';
import { useListOrder } from '../../parts/useListOrder';

const column = createColumnHelper<JobView>();

const columns = [
  column.accessor('createdAt', { id: 'begun', header: 'Began', cell: (c) => <Time value={c.getValue()} /> }),
  column.accessor('kind', {
    header: 'Run',
    cell: ({ row: { original: run } }) => (
      <Link to="/runs/$id" params={{ id: run.id }}>
        {run.kind}
      </Link>
    ),
  }),
  column.accessor('subject', { header: 'Of' }),
  column.accessor('startedBy', { id: 'by', header: 'By' }),
  column.accessor('state', { header: 'State' }),
  column.accessor((r) => r.message ?? '', { id: 'message', header: 'Result', enableSorting: false }),
];

/** Runs, newest first, each with a way to its page: those of an install, or all. */
export function RunList({ install, empty }: { install?: string; empty: string }) {
  const asking = useListOrder();
  const runs = useQuery(runsQuery({ ...asking.order, ...(install ? { install } : {}) }));
  if (runs.isPending) return <Loading />;
  if (runs.error) return <Failure error={runs.error} />;
  return (
    <DataTable
      label="Runs"
      rows={runs.data.items}
      columns={columns}
      empty={empty}
      pages={{ asking, skipped: runs.data.skipped, total: runs.data.total }}
    />
  );
}
