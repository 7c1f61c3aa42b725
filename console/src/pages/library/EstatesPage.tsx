import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { estates as estatesQuery } from '../../api/queries';
import type { EstateSummary } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';
import { Time } from '../../parts/Time';

const column = createColumnHelper<EstateSummary>();
const columns = [
  column.accessor('name', {
    header: 'Estate',
    cell: (c) => (
      <>
        <Link className="nowrap" to="/estates/$estate" params={{ estate: c.getValue() }}>
          {c.getValue()}
        </Link>{' '}
        {c.row.original.rehearses && <span className="soft">rehearsal of {c.row.original.rehearses}</span>}
      </>
    ),
  }),
  column.accessor('title', { header: 'Title' }),
  column.accessor('domain', { header: 'Domain' }),
  column.accessor('reach', { header: 'Directory reached' }),
  column.accessor('hosts', { header: 'Hosts' }),
  column.accessor('instances', { header: 'Instances' }),
  column.accessor((s) => s.addedAt ?? '', {
    id: 'added',
    header: 'Added',
    cell: (c) => (c.getValue() ? <Time value={c.getValue()} /> : ''),
  }),
];

/** The surroundings: domains, hosts, instances, rules. */
export function EstatesPage() {
  const list = useQuery(estatesQuery);
  return (
    <>
      <div className="head">
        <PageTitle>Estates</PageTitle>
        <span className="soft">Where do products go?</span>
        <span className="grow" />
        <Link to="/add/$kind" params={{ kind: 'estate' }}>
          Add an estate
        </Link>
      </div>
      {list.isPending && <Loading />}
      {list.error && <Failure error={list.error} />}
      {list.data && <DataTable label="Estates" rows={list.data} columns={columns} empty="There is no estate yet." />}
    </>
  );
}
