import { createColumnHelper } from '@tanstack/react-table';
import type { HostRightView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Holders } from './Holders';

const column = createColumnHelper<HostRightView>();
const columns = [
  column.accessor((r) => `${r.words} ${r.constant}`, {
    id: 'right',
    header: 'right',
    cell: ({ row }) => (
      <>
        {row.original.denies ? <strong>{row.original.words}</strong> : row.original.words}
        <br />
        <code className="soft">{row.original.constant}</code>
      </>
    ),
  }),
  column.accessor((r) => r.holders.map((h) => h.name).join(' '), {
    id: 'holders',
    header: 'held by',
    cell: ({ row }) => <Holders holders={row.original.holders} />,
  }),
  column.accessor((r) => r.policy ?? (r.unseen ? 'unseen' : 'this host'), {
    id: 'source',
    header: 'decided by',
    cell: ({ row }) => {
      const { policy, unseen, takenBack } = row.original;
      return (
        <>
          {policy ? `policy ${policy}` : unseen ? <span>? not known: {unseen}</span> : 'this host'}
          {takenBack.length > 0 && (
            <div className="cold">◁ the next refresh takes it back from {takenBack.join(', ')}</div>
          )}
        </>
      );
    },
  }),
];

/** Log-on rights and privileges, who holds them, and who decides on each. */
export function RightTable({ rights }: { rights: HostRightView[] }) {
  return <DataTable label="rights" rows={rights} columns={columns} empty="No User Rights Assignment was read." />;
}
