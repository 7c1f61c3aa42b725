import { Button } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { createColumnHelper } from '@tanstack/react-table';
import { api, need } from '../../api/client';
import { log } from '../../api/queries';
import type { LogEntryView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Time } from '../../parts/Time';
import { Loading } from '../../parts/Loading';

const column = createColumnHelper<LogEntryView>();
const columns = [
  column.accessor('number', { header: 'No.' }),
  column.accessor('at', { header: 'When', cell: (c) => <Time value={c.getValue()} /> }),
  column.accessor('who', { header: 'Who' }),
  column.accessor('action', { header: 'Did' }),
  column.accessor('subject', { header: 'To' }),
  column.accessor('detail', { header: 'What', cell: (c) => <span className="soft">{c.getValue()}</span> }),
];

/** Who did what, before and after. */
export function LogPage() {
  const entries = useQuery(log(''));
  const check = useMutation({ mutationFn: () => need(api.GET('/api/log/check')) });
  return (
    <>
      <div className="head">
        <h1>Log</h1>
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
      {entries.data && <DataTable label="Log" rows={entries.data} columns={columns} empty="The log is empty." />}
    </>
  );
}
