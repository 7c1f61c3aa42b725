import { Button, Checkbox, Group, Modal } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { type DocumentKind } from '../../api/libraryQueries';
import { Failure } from '../../parts/Failure';
import { remove } from './documents';
import { useMay } from '../../parts/useMay';

const stays = 'Its versions, runs and history stay on record.';

/** Removes a document, after a confirmation that names it; the service refuses while something hangs on it. */
export function RemoveDocument({ kind, name, onGone }: { kind: DocumentKind; name: string; onGone: () => void }) {
  const queries = useQueryClient();
  const may = useMay('planner');
  const [open, dialog] = useDisclosure(false);
  const [forget, setForget] = useState(false);
  const act = useMutation({
    mutationFn: () => remove(kind, name, forget),
    onSuccess: () => {
      dialog.close();
      void queries.invalidateQueries();
    },
  });
  return (
    <>
      <Button variant="default" disabled={!may} onClick={dialog.open}>
        Remove …
      </Button>
      <Modal opened={open} onClose={dialog.close} title={`Remove the ${kind} ${name}?`}>
        <p>{stays}</p>
        {kind === 'install' && (
          <Checkbox
            label="Also when it was given rights and is not retired: what it was given stays, and nobody is told of it any more"
            checked={forget}
            onChange={(e) => setForget(e.currentTarget.checked)}
          />
        )}
        {act.error && <Failure error={act.error} />}
        <Group mt="md">
          <Button loading={act.isPending} onClick={() => act.mutate(undefined, { onSuccess: () => onGone() })}>
            Remove {name}
          </Button>
          <Button variant="default" onClick={dialog.close}>
            Not now
          </Button>
        </Group>
      </Modal>
    </>
  );
}
