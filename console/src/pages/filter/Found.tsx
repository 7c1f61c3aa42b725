import type { ColumnDef } from '@tanstack/react-table';
import type { FilterView, FoundObjectView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Copy, Dn } from '../../parts/Dn';
import { Time } from '../../parts/Time';

const columns: ColumnDef<FoundObjectView, string>[] = [
  { header: 'Name', accessorKey: 'name' },
  { header: 'Logon name', accessorKey: 'logonName', cell: (c) => <code>{c.getValue() ?? ''}</code> },
  { header: 'Kind', accessorKey: 'kind' },
  { header: 'Distinguished name', accessorKey: 'dn', cell: (c) => <Dn value={c.getValue()} /> },
];

/** Whom a filter finds: in words, how many, and who. */
export function Found({ view, live }: { view: FilterView | undefined; live: boolean }) {
  if (!view?.text) return null;
  return (
    <section aria-label="found">
      <p>
        <b>{view.words}</b>
        <Copy value={view.text} what="the filter" />
      </p>
      <p role="status" aria-live="polite">
        <b className="count">{view.found}</b> found{live ? ', as the directory says' : ` of ${view.of}, as read`}{' '}
        <Time value={view.readAt} />
      </p>
      {view.unknownAttributes.map((attribute) => (
        <p key={attribute} className="outcome-fail">
          ✗ This directory has no attribute <code>{attribute}</code>: it finds nobody.
        </p>
      ))}
      {view.notJudged.map((part) => (
        <p key={part} className="outcome-unseen">
          ? <code>{part}</code> can only be judged by the directory itself: it may find others.
        </p>
      ))}
      <DataTable label="found" rows={view.objects} columns={columns} empty="Nobody matches." />
      {view.found > view.objects.length && <p className="soft">The first {view.objects.length} are shown.</p>}
    </section>
  );
}
