import { Button } from '@mantine/core';
import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import type { JobView } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Time } from '../../parts/Time';

interface Props {
  estate: string;
  jobs: JobView[];
  may: boolean;
  onUndo: (job: JobView) => void;
}

const column = createColumnHelper<JobView>();

/** Traces of an estate and what was fixed or undone, newest first. */
export function EarlierJobs({ estate, jobs, may, onUndo }: Props) {
  const undone = new Set(jobs.filter((j) => j.state === 'done').map((j) => j.undoes));
  const columns = [
    column.accessor('createdAt', { header: 'When', cell: (c) => <Time value={c.getValue()} /> }),
    column.accessor('startedBy', { header: 'Who' }),
    column.accessor('kind', { header: 'Did' }),
    column.accessor((j) => j.message ?? j.state, { id: 'what', header: 'Result' }),
    column.display({
      id: 'open',
      header: 'Then',
      enableSorting: false,
      cell: ({ row: { original: job } }) => (
        <span className="head" style={{ margin: 0 }}>
          {job.state === 'done' && job.hasTrace && (
            <Link to="/trace" search={{ estate, job: job.id }}>
              Open
            </Link>
          )}
          {undone.has(job.id) && <span className="soft">undone</span>}
          {job.canBeUndone && !undone.has(job.id) && (
            <Button size="compact-sm" variant="default" disabled={!may} onClick={() => onUndo(job)}>
              Undo…
            </Button>
          )}
        </span>
      ),
    }),
  ];
  return <DataTable label="Earlier traces" rows={jobs} columns={columns} empty="Nothing was traced yet." />;
}
