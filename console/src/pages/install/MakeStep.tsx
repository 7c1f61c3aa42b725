import { Button } from '@mantine/core';
import { useState } from 'react';
import type { JobView, StepView, WorklistView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { withStep } from './chosenSteps';
import { Confirmation } from './Confirmation';
import { useGrant } from './grant';

interface Props {
  list: WorklistView;
  step: StepView;
  /** What the button says, by how many steps come before it. */
  words: (before: number) => string;
  /** What is read aloud besides, where many buttons say the same. */
  of?: string;
  disabled?: boolean;
  follow: (run: JobView) => void;
}

/** Makes one step of a worklist, with what it hangs on, after it was seen and confirmed. */
export function MakeStep({ list, step, words, of, disabled, follow }: Props) {
  const [asking, setAsking] = useState(false);
  const grant = useGrant(list.install, follow);
  const remove = list.remove.includes(step);
  const steps = remove ? list.remove : list.give;
  const along = withStep(steps, new Set(), step.number);
  const asked = steps.filter((s) => along.has(s.number));
  return (
    <>
      {grant.error && <Failure error={grant.error} />}
      <Button size="compact-sm" disabled={disabled ?? false} onClick={() => setAsking(true)}>
        {words(asked.length - 1)}
        {of && <span className="only-read">, {of}</span>}
      </Button>
      <Confirmation
        open={asking}
        remove={remove}
        simulated={list.simulated}
        steps={asked}
        busy={grant.isPending}
        onCancel={() => setAsking(false)}
        onConfirm={(passwords) =>
          grant.mutate({ remove, steps: asked.map((s) => s.id), passwords }, { onSettled: () => setAsking(false) })
        }
      />
    </>
  );
}
