import { getRouteApi, Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { hosts as hostsQuery } from '../../api/queries';
import type { HostSummary } from '../../api/schema.gen';
import { InstallLinks } from '../../parts/InstallLinks';
import { Time } from '../../parts/Time';
import { EstateList } from './EstateList';

const route = getRouteApi('/frame/hosts');
const column = createColumnHelper<HostSummary>();

const columns = (estate: string) => [
  column.accessor('name', {
    header: 'Host',
    cell: (c) => (
      <Link className="nowrap" to="/estates/$estate/hosts/$host" params={{ estate, host: c.getValue() }}>
        {c.getValue()}
      </Link>
    ),
  }),
  column.accessor('system', { header: 'System' }),
  column.accessor('reach', { header: 'Reached', cell: (c) => <span className="nowrap">{c.getValue()}</span> }),
  column.accessor((h) => h.readAt ?? '', {
    id: 'read',
    header: 'Read',
    cell: (c) =>
      c.row.original.unread ? (
        <span>○ unseen: {c.row.original.unread}</span>
      ) : c.getValue() ? (
        <Time value={c.getValue()} />
      ) : (
        <span className="soft">never</span>
      ),
  }),
  column.accessor((h) => h.services ?? '–', { id: 'services', header: 'Services', enableSorting: false }),
  column.accessor('instances', {
    header: 'Instances',
    enableSorting: false,
    cell: (c) =>
      c.getValue().map((instance) => (
        <div key={instance}>
          <Link to="/estates/$estate/instances/$instance" params={{ estate, instance }}>
            {instance}
          </Link>
        </div>
      )),
  }),
  column.accessor('installs', {
    header: 'Installs',
    cell: (c) => <InstallLinks names={c.getValue()} />,
  }),
];

/** The hosts of an estate with their database instances: were they read, and what is on them? */
export function HostsPage() {
  const { estate } = route.useSearch();
  const navigate = route.useNavigate();
  return (
    <EstateList
      title="Hosts"
      named={estate}
      onChoose={(chosen) => void navigate({ search: { estate: chosen } })}
      list={hostsQuery}
      columns={columns}
      empty="This estate has no hosts."
    />
  );
}
