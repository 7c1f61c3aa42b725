import { Table, TextInput } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import {
  type ColumnDef,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from '@tanstack/react-table';
import { useRef, useState } from 'react';

interface Props<T> {
  label: string;
  rows: T[];
  // Cells are of many types; the table does not care which.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  columns: ColumnDef<T, any>[];
  empty: React.ReactNode;
}

/** A table that sorts by its heads and filters as one types; the slash key goes to the filter. */
export function DataTable<T>({ label, rows, columns, empty }: Props<T>) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [filter, setFilter] = useState('');
  const field = useRef<HTMLInputElement>(null);
  useHotkeys([['/', () => field.current?.focus()]]);
  const table = useReactTable({
    data: rows,
    columns,
    state: { sorting, globalFilter: filter },
    onSortingChange: setSorting,
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
        aria-label={`Filter ${label}`}
        placeholder="Filter (/)"
        value={filter}
        onChange={(e) => setFilter(e.currentTarget.value)}
        maw={320}
        mb="sm"
      />
      <Table aria-label={label} verticalSpacing="xs" highlightOnHover>
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
                        {flexRender(head.column.columnDef.header, head.getContext())}
                        <span aria-hidden="true">{sorted === 'asc' ? ' ↑' : sorted === 'desc' ? ' ↓' : ''}</span>
                      </button>
                    ) : (
                      flexRender(head.column.columnDef.header, head.getContext())
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
                <Table.Td key={cell.id}>{flexRender(cell.column.columnDef.cell, cell.getContext())}</Table.Td>
              ))}
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {shown.length === 0 && <p className="empty">{rows.length === 0 ? empty : `Nothing matches “${filter}”.`}</p>}
    </>
  );
}
