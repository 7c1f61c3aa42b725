import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import type { JobView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Time } from '../../parts/Time';

const column = createColumnHelper<JobView>();

const columns = [
  column.accessor('createdAt', { header: 'Began', cell: (c) => <Time value={c.getValue()} /> }),
  column.accessor('kind', {
    header: 'Run',
    cell: ({ row: { original: run } }) => (
      <Link to="/runs/$id" params={{ id: run.id }}>
        {run.kind}
      </Link>
    ),
  }),
  column.accessor('subject', { header: 'Of' }),
  column.accessor('startedBy', { header: 'By' }),
  column.accessor('state', { header: 'State' }),
  column.accessor((r) => r.message ?? '', { id: 'message', header: 'Result' }),
];

/** Runs, newest first, each with a way to its page. */
export function RunList({ runs, empty }: { runs: JobView[]; empty: string }) {
  return <DataTable label="Runs" rows={runs} columns={columns} empty={empty} />;
}
