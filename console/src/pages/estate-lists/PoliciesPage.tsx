import { getRouteApi, Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { policies as policiesQuery } from '../../api/estateQueries';
import type { PolicySummary } from '../../api/schema.gen';
import { Dn } from '../../parts/Dn';
import { EstateList } from './EstateList';

const route = getRouteApi('/frame/policies');
const column = createColumnHelper<PolicySummary>();

const columns = (estate: string) => [
  column.accessor('name', {
    header: 'Policy',
    cell: ({ row: { original: policy } }) => (
      <Link to="/estates/$estate/policies/$policy" params={{ estate, policy: policy.id }}>
        {policy.name}
      </Link>
    ),
  }),
  column.accessor('linkedAt', {
    id: 'links',
    header: 'Linked at',
    cell: (c) =>
      c.getValue().length === 0 ? (
        <span className="soft">nowhere</span>
      ) : (
        c.getValue().map((dn) => (
          <div key={dn}>
            <Dn value={dn} />
          </div>
        ))
      ),
  }),
  column.accessor('hosts', {
    header: 'Applies to',
    cell: (c) =>
      c.getValue().length > 6 ? (
        <details>
          <summary>{c.getValue().length} hosts</summary>
          {c.getValue().join(', ')}
        </details>
      ) : (
        c.getValue().join(', ') || <span className="soft">no host of the estate</span>
      ),
  }),
  column.accessor((p) => p.rights ?? '–', { id: 'rights', header: 'Rights' }),
  column.accessor((p) => p.groupRules ?? '–', { id: 'groups', header: 'Rules for groups' }),
  column.accessor((p) => p.unread ?? '', {
    id: 'unread',
    header: 'Not read',
    enableSorting: false,
    cell: (c) => (c.getValue() ? <span>○ unseen: {c.getValue()}</span> : <span className="soft">–</span>),
  }),
];

/** The group policies of the domain: where are they linked, and which hosts do they govern? */
export function PoliciesPage() {
  const { estate } = route.useSearch();
  const navigate = route.useNavigate();
  return (
    <EstateList
      title="Policies"
      named={estate}
      onChoose={(chosen) => void navigate({ search: { estate: chosen } })}
      list={policiesQuery}
      columns={columns}
      note={(page) => page.unread && <p>○ Unseen: {page.unread}</p>}
      empty="No policy was read."
    />
  );
}
