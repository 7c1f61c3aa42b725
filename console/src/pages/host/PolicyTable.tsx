import { createColumnHelper } from '@tanstack/react-table';
import type { HostPolicyView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Dn } from '../../parts/Dn';

const column = createColumnHelper<HostPolicyView>();
const columns = [
  column.accessor('name', { header: 'policy' }),
  column.accessor('linkedAt', {
    header: 'linked at',
    cell: ({ row }) => (
      <>
        <Dn value={row.original.linkedAt} />
        <div className="soft">
          link number {row.original.number}
          {row.original.enforced && ', enforced'}
        </div>
      </>
    ),
  }),
  column.accessor('fate', {
    header: 'counts',
    cell: ({ row }) => (row.original.fate === 'applies' ? 'yes' : `no: ${row.original.why}`),
  }),
];

/** The policies linked above a host, the one that wins first. */
export function PolicyTable({ policies, unseen }: { policies: HostPolicyView[]; unseen: string | null }) {
  return (
    <>
      <p className="soft">
        The top policy wins. Each right is one list: the first policy here that sets a right decides it.
      </p>
      {unseen && <p>? Their order could not be worked out: {unseen}</p>}
      <DataTable label="policies" rows={policies} columns={columns} empty="No policy is linked above this host." />
    </>
  );
}
