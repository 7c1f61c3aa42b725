import { Button, Group, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import type { ProductRoleView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { ExactTime, Time } from '../../parts/Time';
import { useMay } from '../../parts/useMay';

interface Props {
  install: string;
  account: string;
  product: ProductRoleView;
  /** The product's name in full. */
  title: string;
}

/** What a person must look up inside the product, what was last said of it, and the place to say it. */
export function PersonsWord({ install, account, product, title }: Props) {
  const cache = useQueryClient();
  const mayNot = !useMay('planner');
  const [seenBy, setSeenBy] = useState('');
  const say = useMutation({
    mutationFn: (held: boolean) =>
      need(
        api.POST('/api/installs/{name}/confirmations', {
          params: { path: { name: install } },
          body: { account, role: product.identity, held, seenBy: seenBy.trim() || null },
        }),
      ),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['install', install] }),
  });
  return (
    <section aria-label="a person's confirmation">
      <h3>Seen inside {title}</h3>
      <p>
        No survey reads this. Look there whether <code>{account}</code> is mapped to <b>{product.identity}</b>
        {product.lets.length > 0 && ', and that it lets it do this and nothing more:'}
      </p>
      {product.lets.length > 0 && (
        <ul>
          {product.lets.map((operation) => (
            <li key={operation}>{operation}</li>
          ))}
        </ul>
      )}
      {product.at && product.until && (
        <p className="soft">
          {product.seenBy} saw it {product.held ? 'there' : 'missing'} <Time value={product.at} />; valid until{' '}
          <ExactTime value={product.until} />.
        </p>
      )}
      <TextInput
        label="Who looked"
        description={`Left empty, it is you. The name and the time are recorded; the confirmation is valid for ${product.forDays} days.`}
        maxLength={128}
        value={seenBy}
        onChange={(e) => setSeenBy(e.currentTarget.value)}
      />
      <Group mt="sm">
        <Button onClick={() => say.mutate(true)} loading={say.isPending} disabled={mayNot}>
          It is there
        </Button>
        <Button variant="default" onClick={() => say.mutate(false)} disabled={mayNot || say.isPending}>
          It is not there
        </Button>
        {mayNot && <span className="soft">You need the planner role to record this.</span>}
        {say.isSuccess && <span role="status">Recorded.</span>}
      </Group>
      {say.error && <Failure error={say.error} />}
    </section>
  );
}
