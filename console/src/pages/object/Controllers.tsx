import { createColumnHelper } from '@tanstack/react-table';
import type { ReplicaComparisonView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';

interface Row {
  controller: string;
  words: string;
  role: string;
}

const column = createColumnHelper<Row>();
const columns = [
  column.accessor('controller', { header: 'Controller', cell: (c) => <code>{c.getValue()}</code> }),
  column.accessor('words', { header: 'What it has' }),
  column.accessor('role', { header: 'Used for' }),
];

/** Which controller was read, which ones have something else, and by what. */
export function Controllers({ compared }: { compared: ReplicaComparisonView }) {
  const others = compared.others.filter((o) => o.controller !== compared.used);
  const used = compared.others.find((o) => o.controller === compared.used);
  const unread = compared.unread.find((u) => u.place === compared.used);
  const rows: Row[] = [
    {
      controller: compared.used,
      words: unread ? `did not answer: ${unread.reason}` : (used?.words ?? 'up to date'),
      role: 'reading and writing',
    },
    ...others.map((o) => ({ controller: o.controller, words: o.words, role: '' })),
    ...compared.unread
      .filter((u) => u !== unread)
      .map((u) => ({ controller: u.place, words: `did not answer: ${u.reason}`, role: '' })),
  ];
  return (
    <section aria-label="Controllers">
      <h2>Controllers: {compared.words}</h2>
      <DataTable label="Controllers" rows={rows} columns={columns} empty="No domain controller was asked." />
    </section>
  );
}
