import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { api, need } from '../../api/client';
import { notifications as notificationsQuery, schedule as scheduleQuery } from '../../api/organizationQueries';
import type { NotificationView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';
import { Time } from '../../parts/Time';
import { useEstate } from '../../parts/useEstate';
import { useListOrder } from '../../parts/useListOrder';
import { useMay } from '../../parts/useMay';

const route = getRouteApi('/frame/notifications');
const column = createColumnHelper<NotificationView>();
const columns = [
  column.accessor('at', { header: 'When', cell: (c) => <Time value={c.getValue()} /> }),
  column.accessor('kind', { header: 'Kind' }),
  column.accessor('subject', { header: 'About', cell: (c) => <span className="nowrap">{c.getValue()}</span> }),
  column.accessor('text', { header: 'What was told', enableSorting: false }),
  column.accessor('deliveries', {
    header: 'To whom',
    enableSorting: false,
    cell: (c) =>
      c.getValue().length === 0 ? (
        <span className="soft">kept here only</span>
      ) : (
        c.getValue().map((d) => (
          <div key={`${d.channel} ${d.to}`}>
            {d.channel} {d.to}: {d.state}
            {d.error && <span className="soft"> {d.error}</span>}
          </div>
        ))
      ),
  }),
];

/** When an estate is surveyed by itself, what was told of it, and to whom. */
export function NotificationsPage() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const { name, estate, field } = useEstate(search.estate, (e) => void navigate({ search: { estate: e } }));
  const asking = useListOrder();
  const list = useQuery({ ...notificationsQuery(name, asking.order), enabled: name !== '' });
  return (
    <>
      <div className="head">
        <PageTitle>Notifications</PageTitle>
        {field}
      </div>
      {name !== '' && <Schedule estate={name} rehearses={estate?.rehearses ?? null} />}
      {name !== '' && list.isPending && <Loading />}
      {list.error && <Failure error={list.error} />}
      {list.data && (
        <DataTable
          label="Notifications"
          rows={list.data.items}
          columns={columns}
          pages={{ asking, skipped: list.data.skipped, total: list.data.total }}
          empty="Nothing was told of this estate."
        />
      )}
    </>
  );
}

function Schedule({ estate, rehearses }: { estate: string; rehearses: string | null }) {
  const mayNot = !useMay('planner');
  const queries = useQueryClient();
  const schedule = useQuery(scheduleQuery(estate));
  const path = { params: { path: { name: estate } } };
  const look = useMutation({
    mutationFn: () => need(api.POST('/api/estates/{name}/schedule', path)),
    onSuccess: () => queries.invalidateQueries(),
  });
  const remind = useMutation({
    mutationFn: () => need(api.POST('/api/estates/{name}/reminders', path)),
    onSuccess: () => queries.invalidateQueries(),
  });
  if (schedule.isPending) return <Loading />;
  if (schedule.error) return <Failure error={schedule.error} />;
  const { everyHours, next, lastAt, lastWords, recipients } = schedule.data;
  return (
    <section aria-label="Scheduled surveys">
      <p>
        {everyHours === null ? (
          <>
            No survey is scheduled: <code>rules.watch</code> in the{' '}
            <Link to="/estates/$estate" params={{ estate }}>
              estate
            </Link>{' '}
            says how often.
          </>
        ) : (
          <>
            A survey every {everyHours} hours
            {next && (
              <>
                , the next <Time value={next} />
              </>
            )}
            .
          </>
        )}{' '}
        {lastAt && (
          <>
            The last <Time value={lastAt} />: {lastWords}.
          </>
        )}{' '}
        {recipients.length > 0 ? `Told are ${recipients.join(', ')}.` : 'Nobody is told outside of Just Right.'}
        {rehearses && ' A rehearsal tells nobody.'}
      </p>
      <div className="head">
        <Button variant="default" disabled={mayNot} loading={look.isPending} onClick={() => look.mutate()}>
          Do the scheduled survey now
        </Button>
        <Button variant="default" disabled={mayNot} loading={remind.isPending} onClick={() => remind.mutate()}>
          Send what is due now
        </Button>
        <span role="status">{remind.isSuccess && 'What is due was sent.'}</span>
      </div>
      {(look.error ?? remind.error) && <Failure error={(look.error ?? remind.error) as Error} />}
    </section>
  );
}
