import { Button } from '@mantine/core';
import type { AlternativeView, DecisionView } from '../../api/schema.gen';

/** A choice among alternatives: what each consists of, what each lets the account do besides, and how to choose another. */
export function Choice({ decision, onTake }: { decision: DecisionView; onTake: (label: string) => void }) {
  const ordered = [...decision.alternatives].sort((a, b) => a.reach - b.reach);
  return (
    <>
      <h3>{decision.id}</h3>
      <p className="soft">
        Taken: {decision.taken}, {decision.byInstall ? decision.reason : 'the least reach'}. <code>{decision.at}</code>
      </p>
      <table className="choices" aria-label={`alternatives of ${decision.id}`}>
        <thead>
          <tr>
            <th scope="col">alternative</th>
            <th scope="col">its rights and what they allow</th>
            <th scope="col">
              <span className="only-read">take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {ordered.map((a) => (
            <Alternative key={a.label} decision={decision} alternative={a} onTake={onTake} />
          ))}
        </tbody>
      </table>
    </>
  );
}

interface AlternativeProps {
  decision: DecisionView;
  alternative: AlternativeView;
  onTake: (label: string) => void;
}

function Alternative({ decision, alternative, onTake }: AlternativeProps) {
  const taken = alternative.label === decision.taken;
  return (
    <tr>
      <th scope="row">
        {alternative.label} {taken && <span className="tag">taken</span>}
      </th>
      <td>
        <ul>
          {alternative.rights.map((right, i) => (
            <li key={right}>
              {right}
              <br />
              <span className="soft">{alternative.lets[i]}</span>
            </li>
          ))}
        </ul>
      </td>
      <td>
        {!taken && (
          <Button size="compact-sm" variant="default" onClick={() => onTake(alternative.label)}>
            Take {alternative.label} …
          </Button>
        )}
      </td>
    </tr>
  );
}
