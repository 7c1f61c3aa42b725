import { getRouteApi, Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { units as unitsQuery } from '../../api/estateQueries';
import type { OrganizationalUnitSummary } from '../../api/schema.gen';
import { Dn } from '../../parts/Dn';
import { EstateList } from './EstateList';
import { stands } from './stands';

const route = getRouteApi('/frame/ous');
const column = createColumnHelper<OrganizationalUnitSummary>();

/** How many there are, and on opening which. */
function Some({ names, of }: { names: string[]; of: string }) {
  if (names.length === 0) return <span className="soft">–</span>;
  if (names.length === 1) return names[0];
  return (
    <details>
      <summary>
        {names.length} {of}
      </summary>
      {names.join(', ')}
    </details>
  );
}

const columns = (estate: string) => [
  column.accessor('dn', {
    header: 'Organizational unit',
    cell: (c) => (
      <>
        <Dn value={c.getValue()} />{' '}
        <Link className="soft nowrap" to="/object" search={{ estate, dn: c.getValue() }}>
          controllers, protection
        </Link>
      </>
    ),
  }),
  column.accessor('branch', { header: 'The estate’s name' }),
  column.accessor('state', {
    header: 'In the directory',
    cell: (c) => <span className="nowrap">{stands[c.getValue()]}</span>,
  }),
  column.accessor('accounts', { header: 'Accounts', cell: (c) => <Some names={c.getValue()} of="accounts" /> }),
  column.accessor('groups', {
    header: 'Groups',
    enableSorting: false,
    cell: (c) => <Some names={c.getValue()} of="groups" />,
  }),
  column.accessor('hosts', { header: 'Hosts', cell: (c) => <Some names={c.getValue()} of="hosts" /> }),
  column.accessor('policies', {
    header: 'Policies linked here',
    cell: ({ row: { original: unit } }) => (
      <>
        {unit.unread && <div>○ unseen: {unit.unread}</div>}
        {unit.policies.map((policy) => (
          <div key={policy}>
            <Link to="/estates/$estate/policies/$policy" params={{ estate, policy }}>
              {policy}
            </Link>
          </div>
        ))}
        {unit.blocksInheritance && <div className="soft">blocks policies from above</div>}
      </>
    ),
  }),
];

/** The organizational units that installs have to do with: are they there, what lies in them, which policies are linked there? */
export function UnitsPage() {
  const { estate } = route.useSearch();
  const navigate = route.useNavigate();
  return (
    <EstateList
      title="OUs"
      named={estate}
      onChoose={(chosen) => void navigate({ search: { estate: chosen } })}
      list={unitsQuery}
      columns={columns}
      empty="This estate names no organizational unit."
    />
  );
}
