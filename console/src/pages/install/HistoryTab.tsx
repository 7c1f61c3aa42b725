import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { drift as driftQuery, history as historyQuery, reviews as reviewsQuery } from '../../api/queries';
import type { DriftLineView } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { Failure } from '../../parts/Failure';
import { Time } from '../../parts/Time';
import { Loading } from '../../parts/Loading';
import { Wide } from '../../parts/Wide';

// What draws plots is large, and only this tab needs it.
const HistoryPlot = lazy(async () => ({ default: (await import('./HistoryPlot')).HistoryPlot }));

const ways: Record<string, string> = { worse: '✗ worse', better: '✓ better', other: '· other' };

/** Who made a difference: of what got worse it is also said that no step from here is known to have; a document may have. */
function madeBy({ madeHere, way }: DriftLineView): string {
  if (madeHere) return `made here: ${madeHere}`;
  return way === 'worse' ? 'no step made here is known to have done it' : '';
}

/** How did the fit go over time, and what made the difference? */
export function HistoryTab({ name }: { name: string }) {
  const history = useQuery(historyQuery(name));
  const reviews = useQuery(reviewsQuery(name));
  const [picked, setPicked] = useState<number | null>(null);
  const shown = picked ?? history.data?.[0]?.number ?? 0;
  const drift = useQuery({ ...driftQuery(name, shown), enabled: shown > 1 });
  if (history.isPending) return <Loading />;
  if (history.error) return <Failure error={history.error} />;
  return (
    <>
      <p className="soft">
        A new entry is saved only when a result changed; otherwise the last entry gets a new “last seen” time.
      </p>
      {history.data.length > 1 && (
        <Suspense fallback={<Loading />}>
          <HistoryPlot fits={history.data} reviews={reviews.data ?? []} />
        </Suspense>
      )}
      <Wide>
        <Table aria-label="kept fits" verticalSpacing={4} highlightOnHover>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Fit</Table.Th>
              <Table.Th>First seen</Table.Th>
              <Table.Th>Last seen</Table.Th>
              <Table.Th>Surveys</Table.Th>
              <Table.Th>Did it fit?</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {history.data.map((f) => (
              <Table.Tr key={f.number} aria-current={f.number === shown ? 'true' : undefined}>
                <Table.Td>
                  <button type="button" className="sort" onClick={() => setPicked(f.number)}>
                    {f.number === shown ? `→ ${f.number}` : f.number}
                  </button>
                </Table.Td>
                <Table.Td>
                  <Time value={f.from} />
                </Table.Td>
                <Table.Td>
                  <Time value={f.until} />
                </Table.Td>
                <Table.Td>{f.seen}</Table.Td>
                <Table.Td>
                  <Balance counts={f.counts} />
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
      <section aria-label="what changed">
        <h2>{shown > 1 ? `What changed since fit ${shown - 1}` : 'The first fit'}</h2>
        {shown <= 1 && <p className="empty">There is no earlier fit to compare with.</p>}
        {drift.isLoading && <Loading />}
        {drift.error && <Failure error={drift.error} />}
        {shown > 1 && drift.data && (
          <Wide>
            <Table aria-label="differences" verticalSpacing={4}>
              <Table.Tbody>
                {drift.data.lines.map((line) => (
                  <Table.Tr key={line.words}>
                    <Table.Td className="nowrap">{ways[line.way] ?? line.way}</Table.Td>
                    <Table.Td>{line.words}</Table.Td>
                    <Table.Td className="soft">{madeBy(line)}</Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
          </Wide>
        )}
      </section>
    </>
  );
}
