import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { groups as groupsQuery } from '../../api/queries';
import type { GroupSummary } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Dn } from '../../parts/Dn';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';
import { useEstate } from '../../parts/useEstate';
import { useListOrder } from '../../parts/useListOrder';
import { SurveyEstate } from './SurveyEstate';
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
    cell: (c) =>
      c.getValue().map((install) => (
        <div key={install}>
          <Link to="/installs/$name" params={{ name: install }}>
            {install}
          </Link>
        </div>
      )),
  }),
];

/** The groups that the installs of an estate use: where are they, and how many are in them? */
export function GroupsPage() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const { name, field } = useEstate(search.estate, (estate) => void navigate({ search: { estate } }));
  const asking = useListOrder();
  const list = useQuery({ ...groupsQuery(name, asking.order), enabled: name !== '' });
  return (
    <>
      <div className="head">
        <PageTitle>Groups</PageTitle>
        {field}
        <span className="grow" />
        <SurveyEstate estate={name} />
      </div>
      {name !== '' && list.isPending && <Loading />}
      {list.error && <Failure error={list.error} />}
      {list.data && (
        <DataTable
          label="Groups"
          rows={list.data.items}
          columns={columns}
          pages={{ asking, skipped: list.data.skipped, total: list.data.total }}
          empty="No install of this estate uses a group."
        />
      )}
    </>
  );
}
