import { Button } from '@mantine/core';
import { useState } from 'react';
import { stepStates } from './stepStates';

interface Row {
  number: number;
  words: string;
  team: string;
  state: string;
  note: string;
  at?: string | null;
}

const signs: Record<string, string> = { ...stepStates, blocked: '– blocked' };

/** How many steps are shown before somebody asks for all of them. */
const atFirst = 300;

/** Which steps are chosen, and what happens when one is clicked. */
export interface StepChoice {
  chosen: ReadonlySet<number>;
  onToggle: (step: number) => void;
}

/** Steps in order, grouped by team, each with its state; where there is a choice, those that are not blocked can be chosen. */
export function StepTable({ steps, choice, label }: { steps: Row[]; choice?: StepChoice; label?: string }) {
  const [all, setAll] = useState(false);
  const left = all ? 0 : Math.max(0, steps.length - atFirst);
  const runs: { team: string; rows: Row[] }[] = [];
  for (const step of left > 0 ? steps.slice(0, atFirst) : steps) {
    const last = runs.at(-1);
    if (last?.team === step.team) last.rows.push(step);
    else runs.push({ team: step.team, rows: [step] });
  }
  return (
    <>
      <table className="steps" aria-label={label}>
        {runs.map((run) => (
          <tbody key={run.rows[0]?.number}>
            <tr>
              <th colSpan={choice ? 5 : 4} scope="rowgroup">
                {run.team ? `${run.team} team` : 'nobody’s team'}
              </th>
            </tr>
            {run.rows.map((row) => (
              <tr key={row.number}>
                {choice && (
                  <td>
                    <input
                      type="checkbox"
                      aria-label={`Step ${row.number}: ${row.words}`}
                      disabled={row.state === 'blocked'}
                      checked={choice.chosen.has(row.number)}
                      onChange={() => choice.onToggle(row.number)}
                    />
                  </td>
                )}
                <td className="number">{row.number}</td>
                <td>{row.words}</td>
                <td className="soft">{row.note}</td>
                <td className="state">{signs[row.state] ?? row.state}</td>
              </tr>
            ))}
          </tbody>
        ))}
      </table>
      {left > 0 && (
        <p>
          <span className="soft">
            {atFirst} of {steps.length} steps.
          </span>{' '}
          <Button size="compact-sm" variant="default" onClick={() => setAll(true)}>
            Show the other {left}
          </Button>
        </p>
      )}
    </>
  );
}
