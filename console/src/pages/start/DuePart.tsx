import { useQueries, useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { calendar, estates as estatesQuery } from '../../api/queries';
import { Due } from '../../parts/Due';
import { Failure } from '../../parts/Failure';
import { tabOf, words } from '../calendar/kinds';

const most = 10;

/** What comes to an end: overdue first, then what is near. */
export function DuePart() {
  const estates = useQuery(estatesQuery);
  const calendars = useQueries({
    queries: (estates.data ?? []).map((e) => calendar(e.name, { skip: 0, take: 50, sort: 'at' })),
  });
  const error = calendars.find((c) => c.error)?.error;
  const due = calendars
    .flatMap((c) => (c.data?.entries ?? []).map((entry) => ({ ...entry, estate: c.data?.estate ?? '' })))
    .filter((e) => e.standing !== 'later')
    .sort((a, b) => a.at.localeCompare(b.at));
  return (
    <section aria-label="Due">
      <h2>Due</h2>
      {error && <Failure error={error} />}
      {due.slice(0, most).map((entry) => (
        <div className="item" key={`${entry.estate} ${entry.id}`}>
          <p>
            {entry.kind === 'password' ? (
              <Link to="/passwords/$estate/$account" params={{ estate: entry.estate, account: entry.subject }}>
                {entry.subject}
              </Link>
            ) : (
              <Link to="/installs/$name" params={{ name: entry.subject }} search={tabOf(entry.kind)}>
                {entry.subject}
              </Link>
            )}
          </p>
          <span className="nowrap">
            <Due value={entry.at} />
          </span>
          <p>{words[entry.kind]}</p>
        </div>
      ))}
      {due.length > most && (
        <p>
          <Link to="/calendar">{due.length - most} more in the calendar</Link>
        </p>
      )}
      {due.length === 0 && !error && <p className="empty">Nothing is due soon.</p>}
    </section>
  );
}
