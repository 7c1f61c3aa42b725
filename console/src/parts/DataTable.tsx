import { Table, TextInput } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import {
  type ColumnDef,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from '@tanstack/react-table';
import { useRef, useState } from 'react';
import { Pager } from './Pager';
import type { Asking } from './useListOrder';
import { Wide } from './Wide';

interface Props<T> {
  label: string;
  rows: T[];
  // Cells are of many types; the table does not care which.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  columns: ColumnDef<T, any>[];
  empty: React.ReactNode;
  /** Where the rows are only some of all, and the service looks among all of them: what is looked for. */
  search?: { text: string; onText: (text: string) => void };
  /** Where the service sorts and pages as well. The ids of the columns are then the service's words for them. */
  pages?: { asking: Asking; skipped: number; total: number };
}

/** The service's word for an order, and back. */
const sortingOf = (sort: string | undefined): SortingState =>
  sort ? [{ id: sort.replace(/^-/, ''), desc: sort.startsWith('-') }] : [];
const sortOf = ([first]: SortingState) => first && `${first.desc ? '-' : ''}${first.id}`;

/**
 * What a column says of a head or a cell. It is called and not made a component: then what stands in a cell, and is open or
 * waits there, outlives a list of columns that is made anew.
 */
function drawn<C>(template: React.ReactNode | ((context: C) => React.ReactNode), context: C): React.ReactNode {
  return typeof template === 'function' ? template(context) : template;
}

/**
 * A table that sorts by its heads and filters as one types; the key f goes to the filter. One that holds only some of all
 * rows leaves both to the service.
 */
export function DataTable<T>({ label, rows, columns, empty, search: searched, pages }: Props<T>) {
  const search = pages?.asking ?? searched;
  const [own, setOwn] = useState<SortingState>([]);
  const sorting = pages ? sortingOf(pages.asking.order.sort) : own;
  const [filter, setFilter] = useState('');
  const field = useRef<HTMLInputElement>(null);
  useHotkeys([['f', () => field.current?.focus()]]);
  const table = useReactTable({
    data: rows,
    columns,
    state: { sorting, globalFilter: search ? '' : filter },
    enableSorting: !search || !!pages,
    manualSorting: !!pages,
    onSortingChange: (change) => {
      const next = typeof change === 'function' ? change(sorting) : change;
      if (pages) pages.asking.onSort(sortOf(next));
      else setOwn(next);
    },
    onGlobalFilterChange: setFilter,
    globalFilterFn: 'includesString',
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const shown = table.getRowModel().rows;
  return (
    <>
      <TextInput
        ref={field}
        aria-label={search ? `Search ${label}` : `Filter ${label}`}
        placeholder={search ? 'Search all (f)' : 'Filter (f)'}
        value={search?.text ?? filter}
        onChange={(e) => (search ? search.onText : setFilter)(e.currentTarget.value)}
        maw={320}
        mb="sm"
      />
      <Wide>
        <Table aria-label={label} verticalSpacing={4} highlightOnHover>
          <Table.Thead>
            {table.getHeaderGroups().map((group) => (
              <Table.Tr key={group.id}>
                {group.headers.map((head) => {
                  const sorted = head.column.getIsSorted();
                  return (
                    <Table.Th
                      key={head.id}
                      aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                    >
                      {head.column.getCanSort() ? (
                        <button type="button" className="sort" onClick={head.column.getToggleSortingHandler()}>
                          {drawn(head.column.columnDef.header, head.getContext())}
                          <span aria-hidden="true">{sorted === 'asc' ? ' ↑' : sorted === 'desc' ? ' ↓' : ''}</span>
                        </button>
                      ) : (
                        drawn(head.column.columnDef.header, head.getContext())
                      )}
                    </Table.Th>
                  );
                })}
              </Table.Tr>
            ))}
          </Table.Thead>
          <Table.Tbody>
            {shown.map((row) => (
              <Table.Tr key={row.id}>
                {row.getVisibleCells().map((cell) => (
                  <Table.Td key={cell.id}>{drawn(cell.column.columnDef.cell, cell.getContext())}</Table.Td>
                ))}
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
      {pages && (
        <Pager
          skipped={pages.skipped}
          shown={rows.length}
          total={pages.total}
          take={pages.asking.order.take}
          onSkip={pages.asking.onSkip}
        />
      )}
      {shown.length === 0 && (
        <p className="empty">
          {rows.length === 0 && !search?.text ? empty : `Nothing matches “${search?.text ?? filter}”.`}
        </p>
      )}
    </>
  );
}
