import { Button, Group, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { adoptionDraft } from '../../api/libraryQueries';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';

interface Props {
  name: string;
  onClose: () => void;
  /** Adds the two; null while something is still open. */
  finish: (() => void) | null;
  busy: boolean;
  error: Error | null;
}

/** The sheet and the install that an adoption comes to, before they are written. */
export function Draft({ name, onClose, finish, busy, error }: Props) {
  const draft = useQuery(adoptionDraft(name));
  return (
    <Modal opened onClose={onClose} title={`What ${name} comes to`} size="xl">
      {draft.isPending && <Loading />}
      {draft.error && <Failure error={draft.error} />}
      {draft.data && (
        <>
          <h2>Sheet</h2>
          <pre className="file" tabIndex={0}>
            {draft.data.sheet}
          </pre>
          <h2>Install</h2>
          <pre className="file" tabIndex={0}>
            {draft.data.install}
          </pre>
        </>
      )}
      {error && <Failure error={error} />}
      <Group mt="md">
        <Button disabled={!finish || !draft.data} loading={busy} onClick={() => finish?.()}>
          Add both to Just Right
        </Button>
        <Button variant="default" onClick={onClose}>
          Not now
        </Button>
      </Group>
    </Modal>
  );
}
