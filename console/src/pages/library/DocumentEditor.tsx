import { Button, FileButton, Group, Modal } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { type DocumentKind } from '../../api/libraryQueries';
import { me } from '../../api/queries';
import type { ReplacingView } from '../../api/schema.gen';
import { schemas } from '../../editor/schemas';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { add, check, replacing } from './documents';
import { useMay } from '../../parts/useMay';

const TextEditor = lazy(() => import('../../editor/TextEditor').then((m) => ({ default: m.TextEditor })));

interface Props {
  kind: DocumentKind;
  /** The document's name; empty for one that is new. */
  name: string;
  /** The text as it is kept, or to begin with. */
  text: string;
  onSaved: (name: string) => void;
}

/** A document as text: written, checked while one types, shown with what it changes before it is kept. */
export function DocumentEditor({ kind, name, text, onSaved }: Props) {
  const queries = useQueryClient();
  const who = useQuery(me);
  const [written, setWritten] = useState<string | null>(null);
  const [shown, setShown] = useState<ReplacingView | null>(null);
  const now = written ?? text;
  const mayWrite = useMay('planner');
  const tell = useMutation({ mutationFn: () => replacing(kind, name, now), onSuccess: setShown });
  const save = useMutation({
    mutationFn: () => add(kind, name, now),
    onSuccess: async () => {
      setShown(null);
      setWritten(null);
      await queries.invalidateQueries();
    },
  });
  /** Who has gone to another page meanwhile is left there: what a call of `mutate` asks for ends with its page. */
  const go = () => save.mutate(undefined, { onSuccess: (saved) => onSaved(saved) });
  return (
    <section aria-label={`Text of the ${kind}`}>
      <Suspense
        fallback={
          <div className="editor-room">
            <Loading />
          </div>
        }
      >
        <TextEditor
          label={`Text of the ${kind}`}
          text={now}
          onText={mayWrite ? setWritten : null}
          schema={schemas[kind]}
          check={(t) => check(kind, name, t)}
        />
      </Suspense>
      <div className="head editor-acts">
        <Button
          disabled={!mayWrite || now.trim() === '' || (name !== '' && now === text)}
          loading={tell.isPending}
          onClick={() => tell.mutate()}
        >
          {name === '' ? 'Add …' : 'Save …'}
        </Button>
        <FileButton
          accept=".yaml,.yml,text/*"
          onChange={(file) => void file?.text().then((t) => setWritten(t))}
          disabled={!mayWrite}
        >
          {(props) => (
            <Button {...props} variant="default">
              Read a file
            </Button>
          )}
        </FileButton>
        {written !== null && written !== text && (
          <Button variant="subtle" onClick={() => setWritten(null)}>
            Back to what is kept
          </Button>
        )}
        {!mayWrite && who.data && <span className="soft">A planner may change it; you are a {who.data.role}.</span>}
      </div>
      {tell.error && <Failure error={tell.error} />}
      <Modal
        opened={shown !== null}
        onClose={() => setShown(null)}
        title={shown?.isThere ? `Replace ${shown.name}?` : `Add ${shown?.name ?? ''}?`}
        size="lg"
      >
        {shown && <Changes shown={shown} />}
        {save.error && <Failure error={save.error} />}
        <Group mt="md">
          <Button loading={save.isPending} onClick={go}>
            {shown?.isThere ? 'Replace' : 'Add'}
          </Button>
          <Button variant="default" onClick={() => setShown(null)}>
            Not now
          </Button>
        </Group>
      </Modal>
    </section>
  );
}

function Changes({ shown }: { shown: ReplacingView }) {
  if (!shown.isThere) return <p>It is new.</p>;
  if (shown.changes.length === 0) return <p>It says the same as what is kept.</p>;
  return (
    <>
      <p>What would change:</p>
      <ul className="changes">
        {shown.changes.map((change) => (
          <li key={change}>{change}</li>
        ))}
      </ul>
      {shown.installs.length > 0 && <p>For {shown.installs.join(', ')}.</p>}
    </>
  );
}
