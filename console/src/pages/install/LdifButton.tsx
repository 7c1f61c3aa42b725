import { Button, CopyButton, Group, Modal } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { api, need } from '../../api/client';
import { Failure } from '../../parts/Failure';

interface Props {
  install: string;
  remove: boolean;
  disabled: boolean;
}

/** The directory part of a list of steps as a file, for whoever may not let anything connect. */
export function LdifButton({ install, remove, disabled }: Props) {
  const file = useMutation({
    mutationFn: () =>
      need(api.GET('/api/installs/{name}/ldif', { params: { path: { name: install }, query: { remove } } })),
  });
  const name = `${install}${remove ? '-remove' : ''}.ldif`;
  return (
    <>
      <Button variant="subtle" disabled={disabled} loading={file.isPending} onClick={() => file.mutate()}>
        As LDIF…
      </Button>
      <Modal
        opened={file.data !== undefined || file.error !== null}
        onClose={file.reset}
        size="xl"
        title="The directory changes, for an ordinary LDAP client"
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        {file.error && <Failure error={file.error} />}
        {file.data && (
          <>
            <p className="soft">It holds no password. Take a survey first if the last one is old.</p>
            <pre className="file" tabIndex={0} aria-label={name}>
              {file.data.text}
            </pre>
            <Group justify="flex-end">
              <CopyButton value={file.data.text}>
                {({ copied, copy }) => (
                  <Button variant="default" onClick={copy}>
                    {copied ? 'Copied' : 'Copy'}
                  </Button>
                )}
              </CopyButton>
              <Button
                component="a"
                href={`data:text/plain;charset=utf-8,${encodeURIComponent(file.data.text)}`}
                download={name}
              >
                Save {name}
              </Button>
            </Group>
          </>
        )}
      </Modal>
    </>
  );
}
