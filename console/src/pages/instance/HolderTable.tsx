import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { holders as holdersQuery } from '../../api/queries';
import type { InstanceHolderView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { useListOrder } from '../../parts/useListOrder';
import { Who } from '../../parts/Who';
import { PathLine } from '../../parts/PathLine';

const column = createColumnHelper<InstanceHolderView>();
const columns = [
  column.accessor('who', {
    header: 'who',
    cell: ({ row }) => <Who who={row.original.who} machine={row.original.machine} />,
  }),
  column.accessor((h) => `${h.right} ${h.place}`, {
    id: 'right',
    header: 'can',
    cell: ({ row }) => (
      <>
        {row.original.right}
        <br />
        <code className="soft" style={{ whiteSpace: 'nowrap' }}>
          {row.original.place}
        </code>
        {row.original.whyNot && <div className="cold">◁ does not count: {row.original.whyNot}</div>}
      </>
    ),
  }),
  column.accessor('reach', {
    header: 'how far it reaches',
    cell: ({ row }) => row.original.lets,
  }),
  column.accessor((h) => h.paths.flatMap((p) => p.steps.map((s) => s.name)).join(' '), {
    id: 'path',
    enableSorting: false,
    header: 'by which path',
    cell: ({ row }) => row.original.paths.map((path, i) => <PathLine key={i} path={path} />),
  }),
  column.accessor((h) => h.neededBy.join(' ') || 'nothing', {
    id: 'needed',
    header: 'needed by',
    cell: ({ row }) =>
      row.original.neededBy.length === 0 ? (
        <span className="soft">nothing here</span>
      ) : (
        row.original.neededBy.map((install) => (
          <div key={install}>
            <Link to="/installs/$name" params={{ name: install }}>
              {install}
            </Link>
          </div>
        ))
      ),
  }),
];

/** Who can do what at an instance: the widest rights first. */
export function HolderTable({ estate, instance }: { estate: string; instance: string }) {
  const asking = useListOrder('-reach');
  const holders = useQuery(holdersQuery(estate, instance, asking.order));
  if (holders.isPending) return <Loading />;
  if (holders.error) return <Failure error={holders.error} />;
  return (
    <DataTable
      label="rights at the instance"
      rows={holders.data.items}
      columns={columns}
      empty="Nobody has a right here, as far as seen."
      pages={{ asking, skipped: holders.data.skipped, total: holders.data.total }}
    />
  );
}
