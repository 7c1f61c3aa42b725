import type { AlternativeView, DecisionView } from '../../api/schema.gen';
import { Copy } from '../../parts/Dn';

/** A choice among alternatives: what each consists of, what each lets the account do besides, and how to choose another. */
export function Choice({ decision }: { decision: DecisionView }) {
  const ordered = [...decision.alternatives].sort((a, b) => a.reach - b.reach);
  return (
    <>
      <h3>{decision.id}</h3>
      <p className="soft">
        Taken: {decision.taken}, {decision.byInstall ? `chosen in the install: ${decision.reason}` : 'the least reach'}.{' '}
        <code>{decision.at}</code>
      </p>
      <table className="choices" aria-label={`alternatives of ${decision.id}`}>
        <thead>
          <tr>
            <th scope="col">alternative</th>
            <th scope="col">its rights and what they allow</th>
            <th scope="col">to choose it, in the install</th>
          </tr>
        </thead>
        <tbody>
          {ordered.map((a) => (
            <Alternative key={a.label} decision={decision} alternative={a} />
          ))}
        </tbody>
      </table>
    </>
  );
}

function Alternative({ decision, alternative }: { decision: DecisionView; alternative: AlternativeView }) {
  const taken = alternative.label === decision.taken;
  const lines = `choices:\n  ${decision.id}: { take: ${alternative.label}, why: "…", by: "…" }`;
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
        {taken ? (
          <span className="soft">it is</span>
        ) : (
          <>
            <code>take: {alternative.label}</code>{' '}
            <Copy value={lines} what={`the lines that take ${alternative.label}`} />
          </>
        )}
      </td>
    </tr>
  );
}
