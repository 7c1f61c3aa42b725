import { getRouteApi, Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { instances as instancesQuery } from '../../api/estateQueries';
import type { InstanceSummary } from '../../api/schema.gen';
import { InstallLinks } from '../../parts/InstallLinks';
import { Time } from '../../parts/Time';
import { engineNames } from '../instance/engineNames';
import { EstateList } from './EstateList';

const route = getRouteApi('/frame/instances');
const column = createColumnHelper<InstanceSummary>();

const columns = (estate: string) => [
  column.accessor('name', {
    header: 'Instance',
    cell: (c) => (
      <Link className="nowrap" to="/estates/$estate/instances/$instance" params={{ estate, instance: c.getValue() }}>
        {c.getValue()}
      </Link>
    ),
  }),
  column.accessor((i) => `${engineNames[i.engine]} ${i.release}`, { id: 'engine', header: 'Engine' }),
  column.accessor('host', {
    header: 'Host',
    cell: (c) => (
      <Link className="nowrap" to="/estates/$estate/hosts/$host" params={{ estate, host: c.getValue() }}>
        {c.getValue()}
      </Link>
    ),
  }),
  column.accessor('reach', { header: 'Reached', cell: (c) => <span className="nowrap">{c.getValue()}</span> }),
  column.accessor((i) => i.readAt ?? '', {
    id: 'read',
    header: 'Read',
    cell: ({ row: { original: i } }) =>
      i.unread ? (
        <span>○ unseen: {i.unread}</span>
      ) : i.readAt ? (
        <>
          <Time value={i.readAt} />
          {i.unreadParts > 0 && <div>○ {i.unreadParts} parts unseen</div>}
        </>
      ) : (
        <span className="soft">never</span>
      ),
  }),
  column.accessor((i) => i.databases ?? '–', { id: 'databases', header: 'Databases', enableSorting: false }),
  column.accessor('installs', { header: 'Installs', cell: (c) => <InstallLinks names={c.getValue()} /> }),
];

/** The database instances of an estate: were they read, and which installs need them? */
export function InstancesPage() {
  const { estate } = route.useSearch();
  const navigate = route.useNavigate();
  return (
    <EstateList
      title="Instances"
      named={estate}
      onChoose={(chosen) => void navigate({ search: { estate: chosen } })}
      list={instancesQuery}
      columns={columns}
      empty="This estate has no database instances."
    />
  );
}
