import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { calendar as calendarQuery } from '../../api/queries';
import type { CalendarEntryView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Due } from '../../parts/Due';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { acts, tabOf, words } from './kinds';
import { PageTitle } from '../../parts/PageTitle';
import { Simulated } from '../../parts/Simulated';
import { useEstate } from '../../parts/useEstate';

const route = getRouteApi('/frame/calendar');
const column = createColumnHelper<CalendarEntryView>();
const standings: Record<CalendarEntryView['standing'], string> = {
  overdue: '✗ overdue',
  soon: '! soon',
  later: '· later',
};
const columns = (estate: string) => [
  column.accessor('standing', {
    header: 'Standing',
    cell: (c) => (
      <span className="nowrap" style={{ fontWeight: c.getValue() === 'later' ? 400 : 600 }}>
        {standings[c.getValue()]}
      </span>
    ),
  }),
  column.accessor('at', { header: 'When', cell: (c) => <Due value={c.getValue()} /> }),
  column.accessor((e) => words[e.kind], {
    id: 'kind',
    header: 'What',
    cell: (c) => <span className="nowrap">{c.getValue()}</span>,
  }),
  column.accessor('subject', { header: 'Of', cell: (c) => <span className="nowrap">{c.getValue()}</span> }),
  column.accessor('words', { header: 'Why then' }),
  column.display({
    id: 'act',
    header: 'What to do',
    cell: ({ row: { original: entry } }) => <Act estate={estate} entry={entry} />,
  }),
];

/** A way to where something is done about an entry. */
function Act({ estate, entry }: { estate: string; entry: CalendarEntryView }) {
  const words = `${acts[entry.kind]}: ${entry.subject}`;
  return entry.kind === 'password' ? (
    <Link
      className="nowrap"
      aria-label={words}
      to="/passwords/$estate/$account"
      params={{ estate, account: entry.subject }}
    >
      {acts[entry.kind]}
    </Link>
  ) : (
    <Link
      className="nowrap"
      aria-label={words}
      to="/installs/$name"
      params={{ name: entry.subject }}
      search={tabOf(entry.kind)}
    >
      {acts[entry.kind]}
    </Link>
  );
}

/** What comes to an end, or is to be done, and when? */
export function CalendarPage() {
  const search = route.useSearch();
  const navigate = useNavigate();
  const { name, field } = useEstate(search.estate, (estate) => void navigate({ to: '/calendar', search: { estate } }));
  const list = useQuery({ ...calendarQuery(name), enabled: name !== '' });
  return (
    <>
      <div className="head">
        <PageTitle>Calendar</PageTitle>
        <span className="soft">What expires or is due, and when?</span>
        <Simulated of={list.data?.simulated} />
        {field}
        <span className="grow" />
        {list.data && <span className="soft">time zone {list.data.timeZone}</span>}
        {list.data && (
          <Button
            component="a"
            variant="default"
            href={`/api/estates/${encodeURIComponent(name)}/calendar/file`}
            download
          >
            Save for my calendar
          </Button>
        )}
      </div>
      {list.isLoading && <Loading />}
      {list.error && <Failure error={list.error} />}
      {list.data && (
        <DataTable
          label="Calendar"
          rows={list.data.entries}
          columns={columns(name)}
          empty="Nothing is due. Passwords appear after the estate was surveyed."
        />
      )}
    </>
  );
}
