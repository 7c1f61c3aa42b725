import { createColumnHelper } from '@tanstack/react-table';
import type { HostServiceView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Time } from '../../parts/Time';

const waves = ['driver', 'first wave', 'second wave', 'when asked for'];
const column = createColumnHelper<HostServiceView>();
const columns = [
  column.accessor((s) => `${s.name} ${s.title}`, {
    id: 'name',
    header: 'service',
    cell: ({ row }) => (
      <>
        {row.original.title || row.original.name}
        <br />
        <code className="soft">{row.original.name}</code>
        {row.original.askedBy && <div className="soft">asked for by {row.original.askedBy}</div>}
      </>
    ),
  }),
  column.accessor('account', {
    header: 'runs as',
    cell: ({ row }) => (
      <>
        <code>{row.original.account}</code>
        {row.original.restartPending && (
          <div className="cold">◁ still runs as {row.original.runsNowAs}: nobody restarted it</div>
        )}
      </>
    ),
  }),
  column.accessor((s) => s.wave ?? 9, {
    id: 'start',
    header: 'starts',
    cell: ({ row }) => (
      <>
        {row.original.start}
        {row.original.wave !== null && <div className="soft">{waves[Number(row.original.wave)]}</div>}
      </>
    ),
  }),
  column.accessor((s) => s.waitsFor.join(' '), {
    id: 'waits',
    header: 'waits for',
    cell: ({ row }) => (
      <>
        {row.original.waitsFor.join(', ')}
        {row.original.obstacle && <div className="cold">◁ {row.original.obstacle}</div>}
      </>
    ),
  }),
  column.accessor('running', {
    header: 'runs',
    cell: ({ row }) =>
      row.original.running ? (
        row.original.runsSince ? (
          <>
            since <Time value={row.original.runsSince} />
          </>
        ) : (
          'yes'
        )
      ) : (
        'no'
      ),
  }),
];

/** Services in the order in which they start. */
export function ServiceTable({ services }: { services: HostServiceView[] }) {
  return <DataTable label="services" rows={services} columns={columns} empty="No service was read." />;
}
