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

/** Steps in order, grouped by team, each with its state. */
export function StepTable({ steps }: { steps: Row[] }) {
  const runs: { team: string; rows: Row[] }[] = [];
  for (const step of steps) {
    const last = runs.at(-1);
    if (last?.team === step.team) last.rows.push(step);
    else runs.push({ team: step.team, rows: [step] });
  }
  return (
    <table className="steps">
      {runs.map((run) => (
        <tbody key={run.rows[0]?.number}>
          <tr>
            <th colSpan={4} scope="rowgroup">
              {run.team ? `${run.team} team` : 'nobody’s team'}
            </th>
          </tr>
          {run.rows.map((row) => (
            <tr key={row.number}>
              <td className="number">{row.number}</td>
              <td>{row.words}</td>
              <td className="soft">{row.note}</td>
              <td className="state">{signs[row.state] ?? row.state}</td>
            </tr>
          ))}
        </tbody>
      ))}
    </table>
  );
}
