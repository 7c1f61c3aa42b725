import { Button, Group, Modal, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { estates as estatesQuery } from '../../api/queries';
import { Failure } from '../../parts/Failure';

/** Begins to adopt a product by its accounts, and has the estate read. */
export function BeginForm({ close }: { close: () => void }) {
  const cache = useQueryClient();
  const navigate = useNavigate();
  const estates = useQuery(estatesQuery);
  const [chosen, setEstate] = useState('');
  const [name, setName] = useState('');
  const [product, setProduct] = useState('');
  const [title, setTitle] = useState('');
  const [accounts, setAccounts] = useState('');
  const estate = chosen || (estates.data?.[0]?.name ?? '');
  const names = accounts
    .split(/[\s,;]+/)
    .map((a) => a.trim())
    .filter(Boolean);
  const begin = useMutation({
    mutationFn: () =>
      need(
        api.POST('/api/adoptions', {
          body: {
            name,
            product,
            estate,
            title: title.trim() || null,
            release: '1',
            accounts: names.map((account) => ({ name: account, worksAs: 'service' as const })),
          },
        }),
      ),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['adoptions'] }),
  });
  return (
    <Modal opened onClose={close} title="Start an adoption" size="lg" closeButtonProps={{ 'aria-label': 'Close' }}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          begin.mutate(undefined, {
            onSuccess: () => void navigate({ to: '/adoptions/$name', params: { name } }),
          });
        }}
      >
        <TextInput
          label="Name"
          description="The name its install will have, such as curdhouse-found."
          required
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
          data-autofocus
        />
        <TextInput
          label="Product"
          description="One word; part of the sheet's name."
          required
          value={product}
          onChange={(e) => setProduct(e.currentTarget.value)}
          mt="xs"
        />
        <TextInput label="Its name in full" value={title} onChange={(e) => setTitle(e.currentTarget.value)} mt="xs" />
        <NativeSelect
          label="Estate"
          data={estates.data?.map((e) => e.name) ?? []}
          value={estate}
          onChange={(e) => setEstate(e.currentTarget.value)}
          mt="xs"
        />
        <Textarea
          label="Accounts"
          description="Logon names, one per line."
          required
          minRows={3}
          autosize
          value={accounts}
          onChange={(e) => setAccounts(e.currentTarget.value)}
          mt="xs"
        />
        {begin.error && <Failure error={begin.error} />}
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={close}>
            Not now
          </Button>
          <Button type="submit" loading={begin.isPending} disabled={!name || !product || !estate || names.length === 0}>
            Begin
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
