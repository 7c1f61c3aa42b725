import { Button, FileButton } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, need } from '../../api/client';
import { Failure } from '../../parts/Failure';
import { Time } from '../../parts/Time';
import { useMay } from '../../parts/useMay';

/** The directory of an estate that nothing may connect to: an LDIF export of it, for surveys. */
export function DirectoryFile({ estate }: { estate: string }) {
  const queries = useQueryClient();
  const may = useMay('planner');
  const send = useMutation({
    mutationFn: (file: File) =>
      need(
        api.POST('/api/estates/{name}/directory-file', {
          params: { path: { name: estate }, query: { file: file.name } },
          // the service takes the bytes as they are
          body: file as unknown as string,
          bodySerializer: (bytes: unknown) => bytes as BodyInit,
          headers: { 'content-type': 'text/plain' },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  return (
    <section aria-label="Directory file">
      <h2>Directory file</h2>
      <p className="soft">Nothing connects to this directory: surveys read an LDIF export of it.</p>
      <FileButton
        accept=".ldif,.ldf,text/*"
        inputProps={{ 'aria-label': 'The export' }}
        onChange={(file) => file && send.mutate(file)}
      >
        {(props) => (
          <Button {...props} variant="default" disabled={!may} loading={send.isPending}>
            Read an export
          </Button>
        )}
      </FileButton>
      {send.error && <Failure error={send.error} />}
      <div role="status">
        {send.data && (
          <p>
            {send.data.file}: {send.data.objects} objects, read <Time value={send.data.readAt} />.
          </p>
        )}
      </div>
    </section>
  );
}
