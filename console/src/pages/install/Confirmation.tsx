import { Button, Group, Modal } from '@mantine/core';
import type { StepView } from '../../api/schema.gen';

interface Props {
  open: boolean;
  remove: boolean;
  simulated: boolean;
  steps: StepView[];
  busy: boolean;
  onCancel: () => void;
  onConfirm: () => void;
}

/** Asks once, listing every change by name. */
export function Confirmation({ open, remove, simulated, steps, busy, onCancel, onConfirm }: Props) {
  const count = `${steps.length} ${steps.length === 1 ? 'change' : 'changes'}`;
  return (
    <Modal
      opened={open}
      onClose={onCancel}
      size="xl"
      title={remove ? `Take away: ${count}` : `Give: ${count}`}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      {simulated && (
        <p>
          <span className="tag">simulated</span> These change the simulation only.
        </p>
      )}
      <ol className="long-list" tabIndex={0} aria-label="The changes">
        {steps.map((step) => (
          <li key={step.id}>
            {step.words} <span className="soft">({step.team})</span>
          </li>
        ))}
      </ol>
      <p className="soft">Each one is logged before it is made and checked afterwards.</p>
      <Group justify="flex-end">
        <Button variant="default" onClick={onCancel} data-autofocus>
          Cancel
        </Button>
        <Button onClick={onConfirm} loading={busy}>
          {remove ? `Remove these ${steps.length}` : `Make these ${count}`}
        </Button>
      </Group>
    </Modal>
  );
}
