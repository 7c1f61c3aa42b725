import { getRouteApi, Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { reviewStands as standsQuery } from '../../api/estateQueries';
import type { ReviewStand } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { Due } from '../../parts/Due';
import { Time } from '../../parts/Time';
import { EstateList } from './EstateList';

const route = getRouteApi('/frame/reviews');
const column = createColumnHelper<ReviewStand>();

/** How a review stands, with a sign that tells it without colour. */
const standings: Record<ReviewStand['standing'], string> = {
  overdue: '✗ overdue',
  soon: '! soon',
  later: '· later',
  never: '– no date',
};

const columns = [
  column.accessor('install', {
    header: 'Install',
    cell: (c) => (
      <Link className="nowrap" to="/installs/$name" params={{ name: c.getValue() }} search={{ tab: 'review' }}>
        {c.getValue()}
      </Link>
    ),
  }),
  column.accessor('title', { header: 'Product', enableSorting: false }),
  column.accessor('stage', { header: 'Stage' }),
  column.accessor((s) => s.latest?.at ?? '', {
    id: 'reviewed',
    header: 'Looked at last',
    cell: ({ row: { original: stand } }) =>
      stand.latest ? (
        <>
          <Time value={stand.latest.at} />, by {stand.latest.by}
          {stand.latest.remark && <div className="soft">{stand.latest.remark}</div>}
        </>
      ) : (
        <span className="soft">never</span>
      ),
  }),
  column.accessor((s) => s.latest?.counts.words ?? '', {
    id: 'result',
    header: 'What they saw',
    enableSorting: false,
    cell: ({ row: { original: stand } }) =>
      stand.latest ? <Balance counts={stand.latest.counts} /> : <span className="soft">–</span>,
  }),
  column.accessor((s) => s.dueAt ?? '', {
    id: 'due',
    header: 'Due',
    cell: ({ row: { original: stand } }) => (
      <>
        <span className="nowrap">{standings[stand.standing]}</span> {stand.dueAt && <Due value={stand.dueAt} />}
      </>
    ),
  }),
];

/** Which installs did somebody look at, and which are due? */
export function ReviewsPage() {
  const { estate } = route.useSearch();
  const navigate = route.useNavigate();
  return (
    <EstateList
      title="Reviews"
      named={estate}
      onChoose={(chosen) => void navigate({ search: { estate: chosen } })}
      list={standsQuery}
      sort="due"
      columns={() => columns}
      empty="This estate has no install."
    />
  );
}
