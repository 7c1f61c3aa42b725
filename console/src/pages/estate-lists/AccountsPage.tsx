import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { accounts as accountsQuery } from '../../api/queries';
import type { AccountSummary } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Dn } from '../../parts/Dn';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';
import { Time } from '../../parts/Time';
import { useEstate } from '../../parts/useEstate';
import { useListOrder } from '../../parts/useListOrder';
import { SurveyEstate } from './SurveyEstate';
import { stands } from './stands';

const route = getRouteApi('/frame/accounts');
const column = createColumnHelper<AccountSummary>();

const columns = (estate: string) => [
  column.accessor('name', {
    header: 'Account',
    cell: (c) => (
      <Link className="nowrap" to="/passwords/$estate/$account" params={{ estate, account: c.getValue() }}>
        {c.getValue()}
      </Link>
    ),
  }),
  column.accessor('state', { header: 'In the directory', cell: (c) => stands[c.getValue()] }),
  column.accessor((a) => a.dn ?? '', {
    id: 'dn',
    enableSorting: false,
    header: 'Where',
    cell: (c) => (c.getValue() ? <Dn value={c.getValue()} /> : <span className="soft">–</span>),
  }),
  column.accessor((a) => a.passwordSetAt ?? '', {
    id: 'password-set',
    header: 'Password set',
    cell: (c) => (c.getValue() ? <Time value={c.getValue()} /> : <span className="soft">–</span>),
  }),
  column.accessor('uses', {
    header: 'Used by',
    cell: (c) =>
      c.getValue().map((use) => (
        <div key={`${use.install} ${use.account}`}>
          <Link to="/installs/$name/accounts/$account" params={{ name: use.install, account: use.account }}>
            {use.install}
          </Link>{' '}
          <span className="soft">{use.account}</span>
        </div>
      )),
  }),
];

/** The accounts that the installs of an estate use: where are they, and who uses them? */
export function AccountsPage() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const { name, field } = useEstate(search.estate, (estate) => void navigate({ search: { estate } }));
  const asking = useListOrder();
  const list = useQuery({ ...accountsQuery(name, asking.order), enabled: name !== '' });
  return (
    <>
      <div className="head">
        <PageTitle>Accounts</PageTitle>
        {field}
        <span className="grow" />
        <SurveyEstate estate={name} />
      </div>
      {name !== '' && list.isPending && <Loading />}
      {list.error && <Failure error={list.error} />}
      {list.data && (
        <DataTable
          label="Accounts"
          rows={list.data.items}
          columns={columns(name)}
          pages={{ asking, skipped: list.data.skipped, total: list.data.total }}
          empty="No install of this estate uses an account."
        />
      )}
    </>
  );
}
