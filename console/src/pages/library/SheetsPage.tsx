import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { sheets as sheetsQuery } from '../../api/libraryQueries';
import type { SheetSummary } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';
import { Time } from '../../parts/Time';

const column = createColumnHelper<SheetSummary>();
const columns = [
  column.accessor('name', {
    header: 'Sheet',
    cell: (c) => (
      <Link className="nowrap" to="/sheets/$name" params={{ name: c.getValue() }}>
        {c.getValue()}
      </Link>
    ),
  }),
  column.accessor('title', { header: 'Product' }),
  column.accessor('accounts', { header: 'Accounts' }),
  column.accessor('needs', { header: 'Needs' }),
  column.accessor('source', { header: 'From' }),
  column.accessor((s) => s.addedAt ?? '', {
    id: 'added',
    header: 'Added',
    cell: (c) => (c.getValue() ? <Time value={c.getValue()} /> : ''),
  }),
];

/** What each product release needs. */
export function SheetsPage() {
  const list = useQuery(sheetsQuery);
  return (
    <>
      <div className="head">
        <PageTitle>Sheets</PageTitle>
        <span className="soft">What does each product release need?</span>
        <span className="grow" />
        <Link to="/new-sheet">From a vendor’s table</Link>
        <Link to="/add/$kind" params={{ kind: 'sheet' }}>
          Add a sheet
        </Link>
      </div>
      {list.isPending && <Loading />}
      {list.error && <Failure error={list.error} />}
      {list.data && <DataTable label="Sheets" rows={list.data} columns={columns} empty="There is no sheet yet." />}
    </>
  );
}
