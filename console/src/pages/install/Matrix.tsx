import { Button, TextInput } from '@mantine/core';
import { useDebouncedValue, useHotkeys } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { type MatrixAsked, matrix as matrixQuery, right as rightQuery } from '../../api/queries';
import type { JobView, JudgementView } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import './matrix.css';
import { MatrixRow } from './MatrixRow';
import { moveFocus } from './moveFocus';
import { Reports } from './Reports';
import { RightPanel } from './RightPanel';
import { useRowsInSight } from './useRowsInSight';

/** How long one may pause between two letters before the service is asked, in milliseconds. */
const pause = 150;

/** Accounts as rows, places as columns, rights with their verdicts in the cells; what one can know of a right stands beside it. */
export function Matrix({ install, follow }: { install: string; follow: (run: JobView) => void }) {
  const [selected, setSelected] = useState<JudgementView | null>(null);
  const [off, setOff] = useState(false);
  const [words, setWords] = useState('');
  const [asWords] = useDebouncedValue(words.trim(), pause);
  useHotkeys([['o', () => setOff((only) => !only)]]);
  const asked: MatrixAsked = { ...(asWords && { words: asWords }), ...(off && { off }) };
  const { data: matrix, error } = useQuery(matrixQuery(install, asked));
  // what is shown of a right is what it is now: a run may have changed it
  const known = useQuery({ ...rightQuery(install, selected?.id ?? ''), enabled: selected !== null });
  const rows = matrix?.rows ?? [];
  const frame = useRef<HTMLDivElement>(null);
  const sight = useRowsInSight(rows.length, frame, (i) => rows[i]?.key ?? '');
  if (!matrix) return error ? <Failure error={error} /> : <Loading />;
  const { columns, shown, total } = matrix;
  const right = selected && !known.error ? (known.data ?? selected) : null;
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
        <Button size="compact-sm" variant={off ? 'filled' : 'default'} aria-pressed={off} onClick={() => setOff(!off)}>
          Only what is off (o)
        </Button>
        <span className="soft" role="status">
          {shown === total ? `${total} rights` : `${shown} of ${total} rights`}
        </span>
      </div>
      <div className={right ? 'matrix-beside' : ''}>
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
                {columns.map(({ name, counts }) => (
                  <th scope="col" key={name}>
                    {name}
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
                      key={row.key}
                      install={install}
                      row={row}
                      columns={columns}
                      asked={asked}
                      quiet={right !== null}
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
          {rows.length === 0 && <p className="empty">{off ? 'Nothing is off here.' : 'Nothing matches.'}</p>}
        </div>
        {right && <RightPanel right={right} matrix={matrix} follow={follow} onClose={() => setSelected(null)} />}
      </div>
      <Reports of={matrix} />
    </>
  );
}

/** The room that rows out of sight take. */
function Room({ height }: { height: number }) {
  return height > 0 ? <tr aria-hidden="true" style={{ height }} /> : null;
}
