import { getRouteApi } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { groups as groupsQuery } from '../../api/queries';
import type { GroupSummary } from '../../api/schema.gen';
import { Dn } from '../../parts/Dn';
import { InstallLinks } from '../../parts/InstallLinks';
import { EstateList } from './EstateList';
import { stands } from './stands';

const route = getRouteApi('/frame/groups');
const column = createColumnHelper<GroupSummary>();

const columns = [
  column.accessor('name', { header: 'Group', cell: (c) => <span className="nowrap">{c.getValue()}</span> }),
  column.accessor('state', { header: 'In the directory', cell: (c) => stands[c.getValue()] }),
  column.accessor((g) => g.dn ?? '', {
    id: 'dn',
    enableSorting: false,
    header: 'Where',
    cell: (c) => (c.getValue() ? <Dn value={c.getValue()} /> : <span className="soft">–</span>),
  }),
  column.accessor((g) => g.members ?? '–', { id: 'members', header: 'Members' }),
  column.accessor('installs', {
    header: 'Used by',
    cell: (c) => <InstallLinks names={c.getValue()} />,
  }),
];

/** The groups that the installs of an estate use: where are they, and how many are in them? */
export function GroupsPage() {
  const { estate } = route.useSearch();
  const navigate = route.useNavigate();
  return (
    <EstateList
      title="Groups"
      named={estate}
      onChoose={(chosen) => void navigate({ search: { estate: chosen } })}
      list={groupsQuery}
      columns={() => columns}
      empty="No install of this estate uses a group."
    />
  );
}
