import { Button, Group, Modal } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api, need } from '../api/client';
import type { JobView } from '../api/schema.gen';
import { Failure } from './Failure';
import { Loading } from './Loading';

interface Props {
  /** The id of the run that is to be undone, or null while the dialog is closed. */
  run: string | null;
  onClose: () => void;
  onUndone: (job: JobView) => void;
}

/** What undoing a run would do, and the button that does it. */
export function UndoDialog({ run, onClose, onUndone }: Props) {
  const params = { path: { id: run ?? '' } };
  const plan = useQuery({
    queryKey: ['run', run, 'undo'],
    queryFn: () => need(api.GET('/api/runs/{id}/undo', { params })),
    enabled: run !== null,
    retry: false,
    gcTime: 0,
  });
  const undo = useMutation({
    mutationFn: () => need(api.POST('/api/runs/{id}/undo', { params })),
    onSuccess: (job) => {
      onUndone(job);
      onClose();
    },
  });
  const steps = plan.data?.steps ?? [];
  const blocked = plan.data?.blocked ?? [];
  return (
    <Modal
      opened={run !== null}
      onClose={onClose}
      size="xl"
      title="Undo, the last change first"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      {plan.isLoading && <Loading />}
      {plan.error && <Failure error={plan.error} />}
      {undo.error && <Failure error={undo.error} />}
      {blocked.length > 0 && (
        <>
          <p>This cannot be undone as things are:</p>
          <ul>
            {blocked.map((b) => (
              <li key={b}>{b}</li>
            ))}
          </ul>
        </>
      )}
      <ol>
        {steps.map((s, i) => (
          <li key={i}>{s}</li>
        ))}
      </ol>
      {plan.data?.left.map((l) => (
        <p key={l} className="soft">
          {l}
        </p>
      ))}
      <Group justify="flex-end">
        <Button variant="default" onClick={onClose} data-autofocus>
          Cancel
        </Button>
        <Button
          loading={undo.isPending}
          disabled={!plan.data || blocked.length > 0 || steps.length === 0}
          onClick={() => undo.mutate()}
        >
          Undo {steps.length === 1 ? 'this change' : 'these changes'}
        </Button>
      </Group>
    </Modal>
  );
}
