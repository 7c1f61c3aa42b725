import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { confirmations as confirmationsQuery } from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { ExactTime } from '../../parts/Time';
import { useMay } from '../../parts/useMay';

interface Props {
  install: string;
  /** The identity or the task. */
  name: string;
  /** When the word that counts was written down. */
  at: string;
}

/** What was written as proof of the word that counts; an owner can erase it. */
export function Proof({ install, name, at }: Props) {
  const cache = useQueryClient();
  const all = useQuery(confirmationsQuery(install));
  const mayErase = useMay('owner');
  const [asking, setAsking] = useState(false);
  const word = all.data?.find((c) => c.role === name && c.at === at);
  const erase = useMutation({
    mutationFn: (number: number) =>
      need(
        api.DELETE('/api/installs/{name}/confirmations/{number}/proof', {
          params: { path: { name: install, number } },
        }),
      ),
    onSuccess: () => cache.invalidateQueries({ queryKey: confirmationsQuery(install).queryKey }),
  });
  if (all.error) return <Failure error={all.error} />;
  if (!word) return null;
  if (word.erasedAt)
    return (
      <p className="soft">
        Its proof was erased by {word.erasedBy} <ExactTime value={word.erasedAt} />; the log keeps the hash.
      </p>
    );
  if (!word.proof) return null;
  return (
    <>
      <blockquote className="proof">{word.proof}</blockquote>
      {asking ? (
        <p role="group" aria-label="Erase this proof">
          It cannot be brought back; the confirmation and the hash in the log stay.{' '}
          <Button size="compact-sm" color="red" loading={erase.isPending} onClick={() => erase.mutate(word.number)}>
            Erase it for good
          </Button>{' '}
          <Button size="compact-sm" variant="default" onClick={() => setAsking(false)}>
            Keep it
          </Button>
        </p>
      ) : (
        <Button size="compact-sm" variant="default" disabled={!mayErase} onClick={() => setAsking(true)}>
          Erase the proof…
        </Button>
      )}
      {erase.error && <Failure error={erase.error} />}
    </>
  );
}
