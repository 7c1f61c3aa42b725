import { Button, Group, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import type { JobStepView, JobView, StepWord } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import './StepDecision.css';

interface Props {
  run: string;
  step: JobStepView;
  onSaid: (run: JobView) => void;
}

/** The step that a run failed at, or that waits for somebody: what it is, why, and what can be said of it. */
export function StepDecision({ run, step, onSaid }: Props) {
  const [note, setNote] = useState('');
  const say = useMutation({
    mutationFn: (word: StepWord['word']) =>
      need(
        api.POST('/api/runs/{id}/steps/{number}', {
          params: { path: { id: run, number: step.number } },
          body: { word, note: note || null },
        }),
      ),
    onSuccess: onSaid,
  });
  const failed = step.state === 'failed' || step.state === 'refused';
  const along = step.leftOutWithIt;
  return (
    <section aria-label={`What to do about step ${step.number}`} className="decision">
      <h2>
        Step {step.number} {failed ? 'failed' : step.byPerson ? 'is for a person' : 'is next'}: {step.words}
      </h2>
      {step.after && <p>{step.after}</p>}
      {say.error && <Failure error={say.error} />}
      <Group align="flex-end" gap="sm">
        <TextInput
          label={`A note on step ${step.number}`}
          placeholder="needed to skip it"
          value={note}
          onChange={(e) => setNote(e.currentTarget.value)}
          w={300}
        />
        {failed && (
          <Button onClick={() => say.mutate('retry')} loading={say.isPending}>
            Retry it
          </Button>
        )}
        {step.byPerson && !failed && (
          <Button onClick={() => say.mutate('done')} loading={say.isPending}>
            It is done
          </Button>
        )}
        {!step.byPerson && (
          <Button variant="default" onClick={() => say.mutate('hand-over')} disabled={say.isPending}>
            Hand it to a person
          </Button>
        )}
        <Button variant="default" onClick={() => say.mutate('skip')} disabled={say.isPending || note === ''}>
          {along.length === 0 ? 'Skip it' : `Skip it, and with it ${along.join(', ')}`}
        </Button>
      </Group>
    </section>
  );
}
