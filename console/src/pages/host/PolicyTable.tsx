import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import type { HostPolicyView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Dn } from '../../parts/Dn';

const column = createColumnHelper<HostPolicyView>();
const columns = (estate: string) => [
  column.accessor('name', {
    header: 'policy',
    cell: ({ row: { original: policy } }) => (
      <Link to="/estates/$estate/policies/$policy" params={{ estate, policy: policy.policy }}>
        {policy.name}
      </Link>
    ),
  }),
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

interface Props {
  estate: string;
  policies: HostPolicyView[];
  unseen: string | null;
}

/** The policies linked above a host, the one that wins first. */
export function PolicyTable({ estate, policies, unseen }: Props) {
  return (
    <>
      <p className="soft">
        The top policy wins. Each right is one list: the first policy here that sets a right decides it.
      </p>
      {unseen && <p>? Their order could not be worked out: {unseen}</p>}
      <DataTable
        label="policies"
        rows={policies}
        columns={columns(estate)}
        empty="No policy is linked above this host."
      />
    </>
  );
}
