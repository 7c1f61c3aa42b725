import { Button, TextInput } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useMemo, useRef, useState } from 'react';
import type { AccountFitView, FitView, JobView, JudgementView } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { countsOf } from '../../parts/strokes';
import { columnsOf, isFine } from './gather';
import './matrix.css';
import { MatrixRow } from './MatrixRow';
import { moveFocus } from './moveFocus';
import { RightPanel } from './RightPanel';
import { useRowsInSight } from './useRowsInSight';

/** Accounts as rows, places as columns, rights with their verdicts in the cells; what one can know of a right stands beside it. */
export function Matrix({ fit, follow }: { fit: FitView; follow: (run: JobView) => void }) {
  const [selectedId, setSelected] = useState<string | null>(null);
  const [onlyOff, setOnlyOff] = useState(false);
  const [words, setWords] = useState('');
  useHotkeys([['o', () => setOnlyOff((only) => !only)]]);
  const { places, columnOf } = useMemo(() => columnsOf(fit), [fit]);
  const rows = useMemo(() => rowsOf(fit, onlyOff, words), [fit, onlyOff, words]);
  const heads = useMemo(() => headsOf(rows, places, columnOf), [rows, places, columnOf]);
  const selected = fit.accounts.flatMap((a) => a.rights).find((r) => r.id === selectedId) ?? null;
  const shown = rows.reduce((sum, r) => sum + r.rights.length, 0);
  const total = fit.accounts.reduce((sum, a) => sum + a.rights.length, 0);
  const frame = useRef<HTMLDivElement>(null);
  const sight = useRowsInSight(rows.length, frame, (i) => rows[i]?.account.key ?? '');
  return (
    <>
      <div className="head">
        <TextInput
          aria-label="Filter the matrix"
          placeholder="Accounts, rights, places"
          size="xs"
          value={words}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
        <Button
          size="compact-sm"
          variant={onlyOff ? 'filled' : 'default'}
          aria-pressed={onlyOff}
          onClick={() => setOnlyOff(!onlyOff)}
        >
          Only what is off (o)
        </Button>
        <span className="soft" role="status">
          {shown === total ? `${total} rights` : `${shown} of ${total} rights`}
        </span>
      </div>
      <div className={selected ? 'matrix-beside' : ''}>
        <div className="matrix-frame" tabIndex={-1} ref={frame}>
          <table
            className="matrix"
            aria-label="Accounts and places"
            aria-rowcount={rows.length + 1}
            onKeyDown={moveFocus}
          >
            <thead>
              <tr>
                <th scope="col">account</th>
                {heads.map(({ place, counts }) => (
                  <th scope="col" key={place}>
                    {place}
                    <br />
                    <Balance counts={counts} quiet />
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              <Room height={sight.before} />
              {sight.indices.map((index) => {
                const row = rows[index];
                return (
                  row && (
                    <MatrixRow
                      key={row.account.key}
                      install={fit.install}
                      account={row.account}
                      rights={row.rights}
                      places={places}
                      columnOf={columnOf}
                      quiet={selected !== null}
                      onSelect={setSelected}
                      index={index}
                      measure={sight.measure}
                    />
                  )
                );
              })}
              <Room height={sight.after} />
            </tbody>
          </table>
          {rows.length === 0 && <p className="empty">{onlyOff ? 'Nothing is off here.' : 'Nothing matches.'}</p>}
        </div>
        {selected && <RightPanel right={selected} fit={fit} follow={follow} onClose={() => setSelected(null)} />}
      </div>
    </>
  );
}

interface Row {
  account: AccountFitView;
  rights: JudgementView[];
}

/** The room that rows out of sight take. */
function Room({ height }: { height: number }) {
  return height > 0 ? <tr aria-hidden="true" style={{ height }} /> : null;
}

/** The columns, each with what stands in it. */
function headsOf(rows: Row[], places: string[], columnOf: (right: JudgementView) => string) {
  const verdicts = new Map(places.map((place) => [place, [] as string[]]));
  for (const { rights } of rows) for (const right of rights) verdicts.get(columnOf(right))?.push(right.verdict);
  return [...verdicts].map(([place, all]) => ({ place, counts: countsOf(all) }));
}

/** The rows that are shown: every account, or those with something that matches. */
function rowsOf(fit: FitView, onlyOff: boolean, words: string): Row[] {
  const asked = words.trim().toLowerCase();
  if (!onlyOff && asked === '') return fit.accounts.map((account) => ({ account, rights: account.rights }));
  return fit.accounts
    .map((account) => {
      const named = `${account.key} ${account.name}`.toLowerCase().includes(asked);
      return {
        account,
        rights: account.rights
          .filter((r) => !onlyOff || !isFine(r))
          .filter((r) => named || `${r.right} ${r.place}`.toLowerCase().includes(asked)),
      };
    })
    .filter((row) => row.rights.length > 0);
}
