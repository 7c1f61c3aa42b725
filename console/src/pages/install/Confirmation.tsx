import { Button, Group, Modal, PasswordInput } from '@mantine/core';
import { useState } from 'react';
import type { AskedPasswordView, StepView } from '../../api/schema.gen';
import { useMay } from '../../parts/useMay';
import type { Passwords } from './grant';

interface Props {
  open: boolean;
  remove: boolean;
  simulated: boolean;
  steps: StepView[];
  busy: boolean;
  onCancel: () => void;
  onConfirm: (passwords: Passwords) => void;
}

/** Asks once, listing every change by name. */
export function Confirmation(props: Props) {
  const { open, remove, steps, onCancel } = props;
  return (
    <Modal
      opened={open}
      onClose={onCancel}
      size="xl"
      title={remove ? `Take away: ${counted(steps)}` : `Give: ${counted(steps)}`}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <Asked {...props} />
    </Modal>
  );
}

const counted = (steps: StepView[]) => `${steps.length} ${steps.length === 1 ? 'change' : 'changes'}`;

/** The passwords that steps take and that are not known here, each once. */
function askedBy(steps: StepView[]): AskedPasswordView[] {
  return [...new Map(steps.flatMap((s) => (s.asks ? [[s.asks.secret, s.asks] as const] : []))).values()];
}

/** What a dialog says; it forgets the passwords when it is closed. */
function Asked({ remove, simulated, steps, busy, onCancel, onConfirm }: Props) {
  const [passwords, setPasswords] = useState<Passwords>({});
  const asked = askedBy(steps);
  const open = asked.filter((a) => !passwords[a.secret]);
  return (
    <>
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
      <AskedPasswords asked={asked} passwords={passwords} onPasswords={setPasswords} />
      <p className="soft">Each one is logged before it is made and checked afterwards.</p>
      <Group justify="flex-end">
        <Button variant="default" onClick={onCancel} data-autofocus>
          Cancel
        </Button>
        <Button onClick={() => onConfirm(passwords)} loading={busy} disabled={open.length > 0}>
          {remove ? `Remove these ${steps.length}` : `Make these ${counted(steps)}`}
        </Button>
      </Group>
    </>
  );
}

interface PasswordProps {
  asked: AskedPasswordView[];
  passwords: Passwords;
  onPasswords: (passwords: Passwords) => void;
}

/** The passwords that are asked for before anything begins; owners type them, and they are kept as secrets. */
function AskedPasswords({ asked, passwords, onPasswords }: PasswordProps) {
  const may = useMay('owner');
  if (asked.length === 0) return null;
  if (!may)
    return (
      <p>
        Services are to be given the password of {asked.map((a) => a.account).join(', ')}, which is not known here: an
        owner sets it. Or leave these steps out.
      </p>
    );
  return asked.map(({ account, secret }) => (
    <PasswordInput
      key={secret}
      label={`The password of ${account}`}
      description={`Its services are to be given it. It is kept encrypted, as the secret ${secret}, and shown nowhere.`}
      autoComplete="off"
      value={passwords[secret] ?? ''}
      onChange={(e) => onPasswords({ ...passwords, [secret]: e.currentTarget.value })}
      mb="sm"
    />
  ));
}
