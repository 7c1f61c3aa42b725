import { Button, Group, SegmentedControl, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { createColumnHelper } from '@tanstack/react-table';
import { useState } from 'react';
import { api, need } from '../../api/client';
import type { ObjectActView, WholeAccessView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Dn } from '../../parts/Dn';
import { Failure } from '../../parts/Failure';
import { Simulated } from '../../parts/Simulated';
import { Time } from '../../parts/Time';
import { useMay } from '../../parts/useMay';

const answers: Record<ObjectActView['answer'], string> = { yes: '● can', no: '◁ cannot', unseen: '○ unseen' };

const column = createColumnHelper<ObjectActView>();
const columns = [
  column.accessor('what', { header: 'What' }),
  column.accessor((a) => answers[a.answer], {
    id: 'answer',
    header: 'Can it?',
    cell: (c) => <span className="nowrap">{c.getValue()}</span>,
  }),
  column.accessor('by', {
    header: 'What decides',
    cell: ({ row: { original: act } }) => (
      <>
        {act.by}
        {act.entry > 0 && act.from && (
          <div className="soft">
            entry {act.entry}, from <Dn value={act.from} />
          </div>
        )}
      </>
    ),
  }),
];

/** Everything that an account can do to an object, and everything it cannot, each with what decides it. */
export function WholeAccess({ estate, dn }: { estate: string; dn: string }) {
  const [account, setAccount] = useState('');
  const may = useMay('planner');
  const ask = useMutation({
    mutationFn: () =>
      need(
        api.POST('/api/estates/{name}/access/everything', {
          params: { path: { name: estate } },
          body: { account: account.trim(), at: dn },
        }),
      ),
  });
  return (
    <section aria-label="What an account can do to it">
      <h2>What an account can do to it</h2>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          ask.mutate();
        }}
      >
        <Group align="flex-end" gap="sm" mb="sm">
          <TextInput
            label="Account"
            description="Its logon name, or what a sheet calls it"
            value={account}
            onChange={(e) => setAccount(e.currentTarget.value)}
            w={280}
          />
          <Button type="submit" variant="default" disabled={!may || account.trim() === ''} loading={ask.isPending}>
            Read it
          </Button>
        </Group>
      </form>
      {ask.error && <Failure error={ask.error} />}
      {ask.data && <Answers whole={ask.data} />}
    </section>
  );
}

function Answers({ whole }: { whole: WholeAccessView }) {
  const [shown, setShown] = useState('all');
  return (
    <>
      <p>
        <code>{whole.account}</code> on this {whole.class}
        {whole.owner && `, which ${whole.owner} owns`}; read <Time value={whole.readAt} /> from {whole.readFrom}.{' '}
        <Simulated of={whole.simulated} />
      </p>
      {whole.unread.map((part) => (
        <p key={part.place}>
          ○ unseen: {part.place}: {part.reason}
        </p>
      ))}
      <SegmentedControl
        aria-label="Which of it is shown"
        size="xs"
        mb="sm"
        value={shown}
        onChange={setShown}
        data={[{ value: 'all', label: 'All' }, ...Object.entries(answers).map(([value, label]) => ({ value, label }))]}
      />
      <DataTable
        label="What it can do"
        rows={whole.acts.filter((a) => shown === 'all' || a.answer === shown)}
        columns={columns}
        empty="There is nothing of that."
      />
    </>
  );
}
