import { getRouteApi, Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { accounts as accountsQuery } from '../../api/queries';
import type { AccountSummary } from '../../api/schema.gen';
import { Dn } from '../../parts/Dn';
import { Time } from '../../parts/Time';
import { EstateList } from './EstateList';
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
  const { estate } = route.useSearch();
  const navigate = route.useNavigate();
  return (
    <EstateList
      title="Accounts"
      named={estate}
      onChoose={(chosen) => void navigate({ search: { estate: chosen } })}
      list={accountsQuery}
      columns={columns}
      empty="No install of this estate uses an account."
    />
  );
}
