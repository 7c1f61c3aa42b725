import { Button, Group, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { Failure } from '../../parts/Failure';

const nothing = { host: '', where: '', setting: '', breaks: '' };
const labels: Record<keyof typeof nothing, string> = {
  host: 'Host',
  where: 'Where: a file, a page, a program',
  setting: 'Setting',
  breaks: 'What stops when it is changed in the directory first',
};
const fields = ['host', 'where', 'setting', 'breaks'] as const;

/** A place where the password is typed that nobody can read: told by whoever knows it. */
export function AddPlace({ estate, account, may }: { estate: string; account: string; may: boolean }) {
  const queries = useQueryClient();
  const [place, setPlace] = useState(nothing);
  const add = useMutation({
    mutationFn: () =>
      need(
        api.POST('/api/estates/{name}/passwords/{account}/places', {
          params: { path: { name: estate, account } },
          body: { ...place, reference: null },
        }),
      ),
    onSuccess: () => {
      setPlace(nothing);
      return queries.invalidateQueries();
    },
  });
  return (
    <details>
      <summary>Add a place where it is typed</summary>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          add.mutate();
        }}
      >
        <Group align="end" my="sm">
          {fields.map((field) => (
            <TextInput
              key={field}
              label={labels[field]}
              value={place[field]}
              onChange={(e) => setPlace({ ...place, [field]: e.currentTarget.value })}
            />
          ))}
          <Button
            type="submit"
            variant="default"
            loading={add.isPending}
            disabled={!may || fields.some((f) => place[f].trim() === '')}
          >
            Add it
          </Button>
        </Group>
        {add.error && <Failure error={add.error} />}
      </form>
    </details>
  );
}
