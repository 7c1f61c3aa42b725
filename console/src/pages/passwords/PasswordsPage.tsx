import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { passwords as passwordsQuery } from '../../api/queries';
import type { AccountPasswordView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Due } from '../../parts/Due';
import { Failure } from '../../parts/Failure';
import { Time } from '../../parts/Time';
import { Loading } from '../../parts/Loading';
import { Standing } from './Standing';
import { PageTitle } from '../../parts/PageTitle';
import { Simulated } from '../../parts/Simulated';
import { useEstate } from '../../parts/useEstate';

const route = getRouteApi('/frame/passwords');
const column = createColumnHelper<AccountPasswordView>();
const columns = (estate: string) => [
  column.accessor('standing', { header: 'Standing', cell: (c) => <Standing standing={c.getValue()} /> }),
  column.accessor('account', {
    header: 'Account',
    cell: (c) => (
      <Link className="nowrap" to="/passwords/$estate/$account" params={{ estate, account: c.getValue() }}>
        {c.getValue()}
      </Link>
    ),
  }),
  column.accessor((a) => a.due ?? '', {
    id: 'due',
    header: 'Due',
    cell: (c) => (c.getValue() ? <Due value={c.getValue()} /> : <span className="soft">–</span>),
  }),
  column.accessor('keptBy', { header: 'Changed by' }),
  column.accessor('places', {
    header: 'Typed in',
    cell: (c) =>
      c.getValue() === 0 ? (
        <span className="soft">none known</span>
      ) : (
        `${c.getValue()} places`.replace(/^1 places/, '1 place')
      ),
  }),
  column.accessor('words', {
    header: 'Why',
    cell: (c) => (
      <>
        {c.getValue()}
        {c.row.original.quarrel && <strong>; {c.row.original.quarrel}</strong>}
        {c.row.original.renewal && <span className="tag">being renewed</span>}
      </>
    ),
  }),
];

/** When is each password due, and who changes it? */
export function PasswordsPage() {
  const search = route.useSearch();
  const navigate = useNavigate();
  const { name, field } = useEstate(search.estate, (estate) => void navigate({ to: '/passwords', search: { estate } }));
  const list = useQuery({ ...passwordsQuery(name), enabled: name !== '' });
  return (
    <>
      <div className="head">
        <PageTitle>Passwords</PageTitle>
        <span className="soft">When is each password due, and who changes it?</span>
        <Simulated of={list.data?.simulated} />
        {field}
        <span className="grow" />
        {list.data?.readAt && (
          <span className="soft">
            read <Time value={list.data.readAt} />
          </span>
        )}
      </div>
      {list.isLoading && <Loading />}
      {list.error && <Failure error={list.error} />}
      {list.data && (
        <DataTable
          label="Passwords"
          rows={list.data.accounts}
          columns={columns(name)}
          empty="No install of this estate has an account yet."
        />
      )}
    </>
  );
}
