import { createColumnHelper } from '@tanstack/react-table';
import type { InstanceWayView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Who } from '../../parts/Who';

const column = createColumnHelper<InstanceWayView>();
const columns = [
  column.accessor('who', {
    header: 'who',
    cell: ({ row }) => <Who who={row.original.who} machine={row.original.machine} />,
  }),
  column.accessor((w) => `${w.right} ${w.place}`, {
    id: 'more',
    header: 'can come to',
    cell: ({ row }) => (
      <>
        {row.original.right}
        <br />
        <code className="soft" style={{ whiteSpace: 'nowrap' }}>
          {row.original.place}
        </code>
      </>
    ),
  }),
  column.accessor((w) => w.steps.join(' '), {
    id: 'steps',
    header: 'how',
    cell: ({ row }) => (
      <ol style={{ margin: 0, paddingLeft: '1.2em' }}>
        {row.original.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
    ),
  }),
];

/** Who can come to more at an instance than was granted, and how. */
export function WayTable({ ways, more }: { ways: InstanceWayView[]; more: number }) {
  if (ways.length === 0) return null;
  return (
    <>
      <h2>Ways to more than was granted</h2>
      <DataTable label="ways to more than was granted" rows={ways} columns={columns} empty="No way was found." />
      {more > 0 && <p className="soft">and {more} more ways, which are not listed here</p>}
    </>
  );
}
