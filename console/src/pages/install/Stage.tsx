import { Button, Group, Modal, NativeSelect } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { Failure } from '../../parts/Failure';
import { useMay } from '../../parts/useMay';

const stages = ['planned', 'installed', 'retiring'] as const;

type InstallStage = (typeof stages)[number];

/** What follows from a stage. */
const follows: Record<InstallStage, string> = {
  planned: 'What setup gives is pending again, and what was only for setup is needed again.',
  installed: 'What setup gives must be there, and what was only for setup must be gone.',
  retiring:
    'What only this install needed is excess from then on: the worklist removes it. Accounts are disabled first and deleted later; until then, undo restores everything.',
};

/** How far an install has come, for a person to say: what is judged hangs on it. Nothing of the estate changes. */
export function Stage({ name, stage }: { name: string; stage: string }) {
  const may = useMay('planner');
  const queries = useQueryClient();
  const [wanted, setWanted] = useState<InstallStage | null>(null);
  const say = useMutation({
    mutationFn: (next: InstallStage) =>
      need(api.POST('/api/installs/{name}/stage', { params: { path: { name } }, body: { stage: next } })),
    onSuccess: () => setWanted(null),
    onSettled: () => queries.invalidateQueries(),
  });
  const close = () => {
    setWanted(null);
    say.reset();
  };
  return (
    <>
      <NativeSelect
        aria-label="Stage"
        size="xs"
        data={[...stages]}
        value={stage}
        disabled={!may}
        onChange={(event) => setWanted(event.currentTarget.value as InstallStage)}
      />
      <Modal opened={wanted !== null} onClose={close} title={`Is ${name} ${wanted ?? ''}?`}>
        {wanted && <p>{follows[wanted]}</p>}
        <p className="soft">This says how far the product has come. Nothing in the estate changes by it.</p>
        {say.error && <Failure error={say.error} />}
        <Group mt="md">
          <Button loading={say.isPending} onClick={() => wanted && say.mutate(wanted)}>
            It is {wanted}
          </Button>
          <Button variant="default" onClick={close}>
            Not now
          </Button>
        </Group>
      </Modal>
    </>
  );
}
