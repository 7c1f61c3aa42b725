import { Button } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useInfiniteQuery, useMutation } from '@tanstack/react-query';
import { createColumnHelper } from '@tanstack/react-table';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { log } from '../../api/queries';
import type { LogEntryView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Time } from '../../parts/Time';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';

const column = createColumnHelper<LogEntryView>();
const columns = [
  column.accessor('number', { header: 'No.' }),
  column.accessor('at', { header: 'When', cell: (c) => <Time value={c.getValue()} /> }),
  column.accessor('who', { header: 'Who', cell: (c) => <span className="nowrap">{c.getValue()}</span> }),
  column.accessor('action', { header: 'Did' }),
  column.accessor('subject', { header: 'To', cell: (c) => <span className="nowrap">{c.getValue()}</span> }),
  column.accessor('detail', { header: 'What', cell: (c) => <span className="soft">{c.getValue()}</span> }),
];

/** Who did what, before and after. */
export function LogPage() {
  const [text, setText] = useState('');
  const [asked] = useDebouncedValue(text, 250);
  const entries = useInfiniteQuery(log(asked));
  const rows = entries.data?.pages.flatMap((page) => page.items) ?? [];
  const total = entries.data?.pages[0]?.total;
  const check = useMutation({ mutationFn: () => need(api.GET('/api/log/check')) });
  return (
    <>
      <div className="head">
        <PageTitle>Log</PageTitle>
        <span className="grow" />
        <span role="status">
          {check.data &&
            (check.data.sound
              ? `The log is sound: ${check.data.entries} entries.`
              : `The log is broken at entry ${check.data.brokenAt}.`)}
        </span>
        <Button variant="default" loading={check.isPending} onClick={() => check.mutate()}>
          Check the chain
        </Button>
      </div>
      {entries.isPending && <Loading />}
      {entries.error && <Failure error={entries.error} />}
      {entries.data && (
        <>
          <DataTable
            label="Log"
            rows={rows}
            columns={columns}
            empty="The log is empty."
            search={{ text, onText: setText }}
          />
          <div className="head">
            <span className="soft" role="status">
              {entries.hasNextPage
                ? `The latest ${rows.length} of ${total ?? 'very many'}${asked ? ' that match' : ''}.`
                : `All ${rows.length}${asked ? ' that match' : ''}.`}
            </span>
            {entries.hasNextPage && (
              <Button
                variant="default"
                loading={entries.isFetchingNextPage}
                onClick={() => void entries.fetchNextPage()}
              >
                Show older
              </Button>
            )}
          </div>
        </>
      )}
    </>
  );
}
