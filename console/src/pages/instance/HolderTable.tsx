import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import type { InstanceHolderView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Who } from '../../parts/Who';
import { PathLine } from '../../parts/PathLine';

const column = createColumnHelper<InstanceHolderView>();
const columns = [
  column.accessor('who', {
    header: 'who',
    cell: ({ row }) => <Who who={row.original.who} machine={row.original.machine} />,
  }),
  column.accessor((h) => `${h.right} ${h.place}`, {
    id: 'can',
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

/** Who can do what at an instance. */
export function HolderTable({ holders }: { holders: InstanceHolderView[] }) {
  return (
    <DataTable
      label="rights at the instance"
      rows={holders}
      columns={columns}
      empty="Nobody has a right here, as far as seen."
    />
  );
}
