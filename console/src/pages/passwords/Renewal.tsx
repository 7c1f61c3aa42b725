import { Button, Group, Table, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import type { JobView, RenewalView, StepWord } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { stepStates } from '../../parts/stepStates';
import { Time } from '../../parts/Time';
import { Simulated } from '../../parts/Simulated';
import { Wide } from '../../parts/Wide';

interface Props {
  renewal: RenewalView;
  /** What is being done now, or null. */
  running: string | null;
  mayGrant: boolean;
  follow: (run: JobView) => void;
}

/** A renewal: its steps as they stand, which password is where, and what somebody has to say now. */
export function Renewal({ renewal, running, mayGrant, follow }: Props) {
  const [note, setNote] = useState('');
  const path = { id: renewal.id };
  const answered = {
    onSuccess: (run: JobView) => {
      setNote('');
      follow(run);
    },
  };
  const say = useMutation({
    mutationFn: (word: StepWord['word']) =>
      need(
        api.POST('/api/runs/{id}/steps/{number}', {
          params: { path: { ...path, number: renewal.current ?? 0 } },
          body: { word, note: note || null },
        }),
      ),
    ...answered,
  });
  const back = useMutation({
    mutationFn: () => need(api.POST('/api/runs/{id}/undo', { params: { path } })),
    ...answered,
  });
  const busy = running !== null || say.isPending || back.isPending;
  const current = renewal.steps.find((s) => s.number === renewal.current);
  return (
    <section aria-label="renewal">
      <div className="head">
        <h2>{renewal.endedAt ? 'The last renewal' : 'Being renewed'}</h2>
        <span role="status" aria-live="polite">
          {running ?? renewal.words}
        </span>
        <Simulated of={renewal.simulated} />
        <span className="grow" />
        <span className="soft">
          begun by {renewal.startedBy}, <Time value={renewal.startedAt} />
        </span>
      </div>
      <Wide>
        <Table className="steps" aria-label="steps of the renewal" verticalSpacing={4}>
          <Table.Tbody>
            {renewal.steps.map((s) => (
              <Table.Tr key={s.number} aria-current={s.number === renewal.current ? 'step' : undefined}>
                <Table.Td className="state">
                  {s.state === 'waiting' && s.number === renewal.current ? '→ next' : stepStates[s.state]}
                </Table.Td>
                <Table.Td className="number">{s.number}</Table.Td>
                <Table.Td>{s.number === renewal.current ? <strong>{s.words}</strong> : s.words}</Table.Td>
                <Table.Td className="soft">
                  {s.state === 'waiting' ? s.why : s.note}
                  {s.at && (
                    <>
                      {' '}
                      ({s.by}, <Time value={s.at} />)
                    </>
                  )}
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
      {renewal.divided.length > 0 && (
        <div role="note">
          <h3>{renewal.endedAt ? 'Still has the old password' : 'Still has another password than the directory'}</h3>
          <ul>
            {renewal.divided.map((d) => (
              <li key={d}>{d}</li>
            ))}
          </ul>
        </div>
      )}
      {say.error && <Failure error={say.error} />}
      {back.error && <Failure error={back.error} />}
      {!renewal.endedAt && current && mayGrant && renewal.next !== 'go' && (
        <Group align="flex-end" gap="sm" mt="sm">
          <TextInput
            label={`A note on step ${current.number}`}
            placeholder={renewal.next === 'decision' ? 'needed to skip it' : 'who typed it'}
            value={note}
            onChange={(e) => setNote(e.currentTarget.value)}
            w={300}
          />
          {renewal.next === 'person' && (
            <Button onClick={() => say.mutate('done')} loading={busy}>
              It is typed
            </Button>
          )}
          {renewal.next === 'decision' && (
            <Button onClick={() => say.mutate('retry')} loading={busy}>
              Try it again
            </Button>
          )}
          {renewal.next === 'window' && (
            <Button onClick={() => say.mutate('restart-now')} loading={busy}>
              Restart now
            </Button>
          )}
          {current.act !== 'set-in-directory' && (
            <Button variant="default" onClick={() => say.mutate('skip')} disabled={busy || note === ''}>
              Skip it
            </Button>
          )}
          {renewal.canGoBack && (
            <Button variant="default" onClick={() => back.mutate()} disabled={busy}>
              Restore the old password
            </Button>
          )}
        </Group>
      )}
    </section>
  );
}
