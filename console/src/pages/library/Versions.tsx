import { Button, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type DocumentKind, version, versionChanges, versions } from '../../api/libraryQueries';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { Time } from '../../parts/Time';

/** The texts that a document had: who added each, and what it changed. */
export function Versions({ kind, name }: { kind: DocumentKind; name: string }) {
  const all = useQuery(versions(kind, name));
  const [open, setOpen] = useState<number | null>(null);
  if (all.isPending) return <Loading />;
  if (all.error) return <Failure error={all.error} />;
  return (
    <section aria-label="Versions">
      <h2>Versions</h2>
      <table className="steps">
        <tbody>
          {all.data.map((v) => (
            <tr key={v.number}>
              <td className="number">{v.number}</td>
              <td>
                <Time value={v.at} /> by {v.by}, from {v.file}
                {v.removedAt && (
                  <>
                    ; removed <Time value={v.removedAt} /> by {v.removedBy}
                  </>
                )}
              </td>
              <td>
                <Button size="compact-sm" variant="default" onClick={() => setOpen(v.number)}>
                  Version {v.number}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Modal opened={open !== null} onClose={() => setOpen(null)} title={`Version ${open} of ${name}`} size="xl">
        {open !== null && <Version kind={kind} name={name} number={open} />}
      </Modal>
    </section>
  );
}

function Version({ kind, name, number }: { kind: DocumentKind; name: string; number: number }) {
  const text = useQuery(version(kind, name, number));
  const changes = useQuery({ ...versionChanges(kind, name, number - 1, number), enabled: number > 1 });
  if (text.isPending) return <Loading />;
  if (text.error) return <Failure error={text.error} />;
  return (
    <>
      {changes.error && <Failure error={changes.error} />}
      {changes.data && (
        <ul className="changes">
          {changes.data.changes.length === 0 && <li>It says the same as the version before.</li>}
          {changes.data.changes.map((change) => (
            <li key={change}>{change}</li>
          ))}
        </ul>
      )}
      <pre className="file" tabIndex={0}>
        {text.data.text}
      </pre>
    </>
  );
}
