import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import type { HostServiceView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Time } from '../../parts/Time';
import { SetRunAs } from './SetRunAs';
import { useMay } from '../../parts/useMay';

/** The order in which services start, as the service names it. */
const startOrders = ['with the system', 'automatic', 'automatic, delayed', 'manual', 'disabled'];
const ownOrder: Record<string, string> = {
  boot: 'with the system',
  system: 'with the system',
  'automatic-delayed': 'automatic, delayed',
};
const column = createColumnHelper<HostServiceView>();
const columns = (canSet: boolean) => [
  column.accessor((s) => `${s.name} ${s.title}`, {
    id: 'name',
    header: 'service',
    cell: ({ row }) => (
      <>
        {row.original.title || row.original.name}
        <br />
        <code className="soft">{row.original.name}</code>
        {row.original.asked && (
          <div className="soft">
            asked for by{' '}
            <Link to="/installs/$name" params={{ name: row.original.asked.install }}>
              {row.original.asked.install}
            </Link>
            : {row.original.asked.account}
          </div>
        )}
      </>
    ),
  }),
  column.accessor('account', {
    header: 'runs as',
    cell: ({ row }) => (
      <>
        <code>{row.original.account}</code>{' '}
        {row.original.asked && canSet && <SetRunAs service={row.original} asked={row.original.asked} />}
        <div className="soft">{row.original.identity}</div>
        {row.original.identityRights.length > 0 && (
          <details>
            <summary className="soft">holds {row.original.identityRights.length} rights here</summary>
            {row.original.identityRights.join(', ')}
          </details>
        )}
        {row.original.restartPending && (
          <div className="cold">◁ still runs as {row.original.runsNowAs}: nobody restarted it</div>
        )}
      </>
    ),
  }),
  column.accessor((s) => startOrders.indexOf(s.startOrder), {
    id: 'start',
    header: 'starts',
    cell: ({ row }) => (
      <>
        {row.original.startOrder}
        {row.original.startOrder !== (ownOrder[row.original.start] ?? row.original.start) && (
          <div className="soft">set to {row.original.start}; a service that starts earlier waits for it</div>
        )}
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
  const canSet = useMay('granter');
  return <DataTable label="services" rows={services} columns={columns(canSet)} empty="No service was read." />;
}
