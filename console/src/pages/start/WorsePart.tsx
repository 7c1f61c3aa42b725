import { useLocalStorage } from '@mantine/hooks';
import { useQueries, useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useEffect, useState } from 'react';
import { notifications } from '../../api/organizationQueries';
import { estates as estatesQuery } from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { Time } from '../../parts/Time';

const recent = { skip: 0, take: 50 };

/** What surveys found worse since this person looked here last, on this browser. */
export function WorsePart() {
  const estates = useQuery(estatesQuery);
  const told = useQueries({ queries: (estates.data ?? []).map((e) => notifications(e.name, recent)) });
  const [looked, setLooked] = useLocalStorage<string>({ key: 'justright.looked', getInitialValueInEffect: false });
  const [since] = useState(looked);
  useEffect(() => setLooked(new Date().toISOString()), [setLooked]);
  const error = told.find((t) => t.error)?.error;
  const worse = told
    .flatMap((t) => t.data?.items ?? [])
    .filter((n) => n.kind === 'drift' && (!since || n.at > since))
    .sort((a, b) => b.at.localeCompare(a.at));
  return (
    <section aria-label="Worse than before">
      <h2>
        Worse since you looked{' '}
        {since ? (
          <span className="soft">
            <Time value={since} />
          </span>
        ) : (
          <span className="soft">for the first time</span>
        )}
      </h2>
      {error && <Failure error={error} />}
      {worse.map((n) => (
        <div className="item" key={n.id}>
          <p>{n.subject}</p>
          <Link to="/notifications" search={{ estate: n.estate }}>
            Notifications
          </Link>
          <details>
            <summary>What got worse</summary>
            <p className="told">{n.text}</p>
          </details>
          <p>
            <Time value={n.at} />
          </p>
        </div>
      ))}
      {worse.length === 0 && !error && <p className="empty">No survey found anything worse.</p>}
    </section>
  );
}
