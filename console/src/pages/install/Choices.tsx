import { Button, Group, Modal, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { install as installQuery, me } from '../../api/queries';
import type { DecisionView, ReplacingView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { add, replacing } from '../library/documents';
import { Choice } from './Choice';

interface Wanted {
  decision: string;
  take: string;
}

/** The choices of a plan, and how another alternative is taken: with a reason, and after it was seen what that changes. */
export function Choices({ install, decisions }: { install: string; decisions: DecisionView[] }) {
  const [wanted, setWanted] = useState<Wanted | null>(null);
  if (decisions.length === 0) return null;
  return (
    <section aria-label="Choices">
      <h2>Choices</h2>
      {decisions.map((d) => (
        <Choice key={d.id} decision={d} onTake={(take) => setWanted({ decision: d.id, take })} />
      ))}
      {wanted && <Take install={install} wanted={wanted} onClose={() => setWanted(null)} />}
    </section>
  );
}

function Take({ install, wanted, onClose }: { install: string; wanted: Wanted; onClose: () => void }) {
  const queries = useQueryClient();
  const who = useQuery(me);
  const kept = useQuery(installQuery(install));
  const [why, setWhy] = useState('');
  const [shown, setShown] = useState<ReplacingView | null>(null);
  const text = async () => {
    // what reads and writes documents is large, and few who look at a plan choose
    const { withChoice } = await import('./withChoice');
    return withChoice(kept.data?.text ?? '', wanted.decision, { take: wanted.take, why, by: who.data?.name ?? '' });
  };
  const tell = useMutation({
    mutationFn: async () => replacing('install', install, await text()),
    onSuccess: setShown,
  });
  const take = useMutation({
    mutationFn: async () => add('install', install, await text()),
    onSuccess: async () => {
      onClose();
      await queries.invalidateQueries();
    },
  });
  return (
    <Modal opened onClose={onClose} title={`Take ${wanted.take} for ${wanted.decision}?`}>
      <TextInput
        label="Why"
        required
        value={why}
        onChange={(e) => {
          setWhy(e.currentTarget.value);
          setShown(null);
        }}
      />
      {shown && (
        <ul className="changes">
          {shown.changes.map((change) => (
            <li key={change}>{change}</li>
          ))}
        </ul>
      )}
      {(tell.error ?? take.error) && <Failure error={(tell.error ?? take.error) as Error} />}
      <Group mt="md">
        {shown ? (
          <Button loading={take.isPending} onClick={() => take.mutate()}>
            Take {wanted.take}
          </Button>
        ) : (
          <Button disabled={why.trim() === '' || !kept.data} loading={tell.isPending} onClick={() => tell.mutate()}>
            See what it changes
          </Button>
        )}
        <Button variant="default" onClick={onClose}>
          Not now
        </Button>
      </Group>
    </Modal>
  );
}
