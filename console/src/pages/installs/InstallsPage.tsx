import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { installs as installsQuery, proposals } from '../../api/queries';
import type { InstallSummary } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Proposal } from '../../parts/Proposal';
import { Time } from '../../parts/Time';
import { Loading } from '../../parts/Loading';
import { useListOrder } from '../../parts/useListOrder';
import { PageTitle } from '../../parts/PageTitle';
import { Simulated } from '../../parts/Simulated';

const column = createColumnHelper<InstallSummary>();
const columns = [
  column.accessor('name', {
    header: 'Install',
    cell: (c) => (
      <>
        <Link className="nowrap" to="/installs/$name" params={{ name: c.getValue() }}>
          {c.getValue()}
        </Link>{' '}
        <Simulated of={c.row.original.simulated} />
      </>
    ),
  }),
  column.accessor('title', { header: 'Product' }),
  column.accessor('stage', { header: 'Stage' }),
  column.accessor((i) => i.fit?.words ?? 'not verified yet', {
    id: 'fit',
    header: 'Does it fit?',
    cell: (c) => (
      <>
        {c.row.original.fit ? <Balance counts={c.row.original.fit} /> : <span className="soft">{c.getValue()}</span>}
        {c.row.original.isBeingJudged && <span className="soft"> (being judged anew)</span>}
      </>
    ),
  }),
  column.accessor('next', { header: 'What is next' }),
  column.accessor((i) => i.surveyedAt ?? '', {
    id: 'surveyed',
    header: 'Last survey',
    cell: (c) => (c.getValue() ? <Time value={c.getValue()} /> : <span className="soft">never</span>),
  }),
];

/** What am I putting in, and does it fit? */
export function InstallsPage() {
  const asking = useListOrder();
  const list = useQuery(installsQuery(asking.order));
  const open = useQuery(proposals);
  // Steps that are proposed stand on the page of their install; what is done at once stands here, whatever it is about.
  const acts = open.data?.filter((proposal) => proposal.steps.length === 0) ?? [];
  return (
    <>
      <div className="head">
        <PageTitle>Installs</PageTitle>
        <span className="grow" />
        <Link to="/new-install">New install</Link>
        <Link to="/add/$kind" params={{ kind: 'install' }}>
          Add an install
        </Link>
        <Link to="/adoptions">Adopt what is already there</Link>
      </div>
      {list.isPending && <Loading />}
      {list.error && <Failure error={list.error} />}
      {open.error && <Failure error={open.error} />}
      {acts.map((job) => (
        <Proposal key={job.id} job={job} />
      ))}
      {list.data && (
        <DataTable
          label="Installs"
          rows={list.data.items}
          columns={columns}
          pages={{ asking, skipped: list.data.skipped, total: list.data.total }}
          empty={
            <>
              There is no install yet. <Link to="/new-install">Begin one</Link>: a product in your estate.
            </>
          }
        />
      )}
    </>
  );
}
