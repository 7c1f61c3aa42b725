import type { ColumnDef } from '@tanstack/react-table';
import type { FilterView, FoundObjectView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Copy, Dn } from '../../parts/Dn';
import { Time } from '../../parts/Time';
import type { Asking } from '../../parts/useListOrder';

const columns: ColumnDef<FoundObjectView, string>[] = [
  { header: 'Name', id: 'name', accessorKey: 'name' },
  { header: 'Logon name', id: 'logon-name', accessorKey: 'logonName', cell: (c) => <code>{c.getValue() ?? ''}</code> },
  { header: 'Kind', id: 'kind', accessorKey: 'kind' },
  { header: 'Distinguished name', id: 'dn', accessorKey: 'dn', cell: (c) => <Dn value={c.getValue()} /> },
];

interface Props {
  view: FilterView | undefined;
  /** The page that was asked for among the people last read; undefined where the directory itself was asked. */
  asking: Asking | undefined;
}

/** Whom a filter finds: in words, how many, and who. */
export function Found({ view, asking }: Props) {
  if (!view?.text) return null;
  const live = asking === undefined;
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
      <DataTable
        label="found"
        rows={view.objects}
        columns={columns}
        empty="Nobody matches."
        {...(asking ? { pages: { asking, skipped: view.skipped, total: view.total } } : {})}
      />
      {live && view.found > view.objects.length && <p className="soft">The first {view.objects.length} are shown.</p>}
    </section>
  );
}
