import { Button, Group, Modal, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../../api/client';
import { Failure } from '../../../parts/Failure';
import type { Off } from './off';

/** Accepts one thing that is off: why, until when, and who allowed it. */
export function AcceptForm({ install, off, close }: { install: string; off: Off; close: () => void }) {
  const cache = useQueryClient();
  const [why, setWhy] = useState('');
  const [until, setUntil] = useState('');
  const [by, setBy] = useState('');
  const accept = useMutation({
    mutationFn: () =>
      need(
        api.POST('/api/installs/{name}/exceptions', {
          params: { path: { name: install } },
          body: { target: off.target, why, until, by: by.trim() || null },
        }),
      ),
    onSuccess: async () => {
      await cache.invalidateQueries({ queryKey: ['install', install] });
      close();
    },
  });
  return (
    <Modal opened onClose={close} title="Accept a deviation" size="lg" closeButtonProps={{ 'aria-label': 'Close' }}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          accept.mutate();
        }}
      >
        <p>
          <code>{off.account}</code>: {off.words} stays <b>{off.verdict}</b>. The exception stands beside it in every
          report, until it expires.
        </p>
        <TextInput
          label="Because"
          required
          maxLength={1000}
          value={why}
          onChange={(e) => setWhy(e.currentTarget.value)}
          data-autofocus
        />
        <TextInput
          label="Until"
          description="The last day, in the organization's time zone; at most one year ahead."
          type="date"
          required
          value={until}
          onChange={(e) => setUntil(e.currentTarget.value)}
          maw={240}
          mt="xs"
        />
        <TextInput
          label="Allowed by"
          description="Left empty, it is you."
          maxLength={128}
          value={by}
          onChange={(e) => setBy(e.currentTarget.value)}
          mt="xs"
        />
        {accept.error && <Failure error={accept.error} />}
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={close}>
            Leave it open
          </Button>
          <Button type="submit" loading={accept.isPending} disabled={!why.trim() || !until}>
            Accept
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
