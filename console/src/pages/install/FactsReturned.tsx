import { Button, FileButton, Group } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, need } from '../../api/client';
import { Failure } from '../../parts/Failure';

/** The script that reads a host's facts, for its owner to run. */
const collect = 'collect';

/** Takes in the host facts that a server's owner sent back. */
export function FactsReturned({ estate, install }: { estate: string; install: string }) {
  const cache = useQueryClient();
  const add = useMutation({
    mutationFn: async (file: File) => {
      const body = new Uint8Array(await file.arrayBuffer());
      return need(
        api.POST('/api/estates/{name}/host-facts', {
          params: { path: { name: estate }, query: { file: file.name } },
          // The body is the file as it is: what Windows writes may be UTF-16.
          body: body as unknown as string,
          bodySerializer: (bytes) => bytes as unknown as BodyInit,
          headers: { 'Content-Type': 'text/plain' },
        }),
      );
    },
    onSuccess: () => cache.invalidateQueries({ queryKey: ['install', install] }),
  });
  return (
    <Group gap="sm">
      {add.data && (
        <span role="status">
          Facts of {add.data.host} are here. Verify, so that they count.
          {add.data.unread.length > 0 && ` ${add.data.unread.length} parts could not be read there.`}
        </span>
      )}
      {add.error && <Failure error={add.error} />}
      <Button component="a" variant="subtle" href={`/api/host-scripts/${collect}`} download={`${collect}.ps1`}>
        Script that reads host facts
      </Button>
      <FileButton accept=".json,application/json" onChange={(file) => file && add.mutate(file)}>
        {(props) => (
          <Button variant="subtle" loading={add.isPending} {...props}>
            Host facts came back…
          </Button>
        )}
      </FileButton>
    </Group>
  );
}
