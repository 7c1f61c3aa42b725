import { createColumnHelper } from '@tanstack/react-table';
import type { HostGroupView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Holders } from './Holders';

const column = createColumnHelper<HostGroupView>();
const columns = [
  column.accessor('name', {
    header: 'group',
    cell: ({ row }) => (
      <>
        {row.original.name}
        <br />
        <code className="soft">{row.original.sid}</code>
      </>
    ),
  }),
  column.accessor((g) => g.members.map((m) => m.name).join(' '), {
    id: 'members',
    header: 'members',
    cell: ({ row }) => <Holders holders={row.original.members} />,
  }),
];

/** Local groups with their direct members. */
export function GroupTable({ groups, controller }: { groups: HostGroupView[]; controller: boolean }) {
  const empty = controller
    ? "A domain controller has no local groups: the domain's built-in groups apply here."
    : 'No local group was read.';
  return <DataTable label="local groups" rows={groups} columns={columns} empty={empty} />;
}
