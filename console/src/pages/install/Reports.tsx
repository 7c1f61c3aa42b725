import type { MatrixView } from '../../api/schema.gen';
import { Choices } from './Choices';
import { Time } from '../../parts/Time';

/** What stands below the matrix: choices made, what was seen at the places, what could not be read. */
export function Reports({ of }: { of: MatrixView }) {
  return (
    <>
      {of.unseen.length > 0 && (
        <section>
          <h2>Could not be read</h2>
          <ul>
            {of.unseen.map((u) => (
              <li key={u.place}>
                <strong>{u.place}</strong>: {u.reason} (<Time value={u.at} />)
              </li>
            ))}
          </ul>
        </section>
      )}
      {of.findings.length > 0 && (
        <section>
          <h2>Seen at the places</h2>
          <ul>
            {of.findings.map((f) => (
              <li key={f.place + f.text}>
                <strong>{f.place}</strong>: {f.text}
              </li>
            ))}
          </ul>
        </section>
      )}
      <Choices install={of.install} decisions={of.decisions} />
      {of.notes.length > 0 && (
        <section>
          <h2>Notes</h2>
          <ul>
            {of.notes.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
