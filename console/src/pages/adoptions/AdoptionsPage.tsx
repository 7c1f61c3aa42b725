import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { createColumnHelper } from '@tanstack/react-table';
import { useState } from 'react';
import { adoptions } from '../../api/queries';
import type { AdoptionSummary } from '../../api/schema.gen';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Time } from '../../parts/Time';
import { Loading } from '../../parts/Loading';
import { BeginForm } from './BeginForm';
import { PageTitle } from '../../parts/PageTitle';

const column = createColumnHelper<AdoptionSummary>();
const columns = [
  column.accessor('name', {
    header: 'Adoption',
    cell: (c) => (
      <Link to="/adoptions/$name" params={{ name: c.getValue() }}>
        {c.getValue()}
      </Link>
    ),
  }),
  column.accessor('title', { header: 'Product' }),
  column.accessor('estate', { header: 'Estate' }),
  column.accessor((a) => a.accounts.join(', '), { id: 'accounts', header: 'Accounts' }),
  column.accessor('at', { header: 'Begun', cell: (c) => <Time value={c.getValue()} /> }),
  column.accessor((a) => a.finishedAt ?? '', {
    id: 'finished',
    header: 'Added to Just Right',
    cell: (c) => (c.getValue() ? <Time value={c.getValue()} /> : <span className="soft">not yet</span>),
  }),
];

/** What was there before us, and is being taken into the books? */
export function AdoptionsPage() {
  const list = useQuery(adoptions);
  const [beginning, setBeginning] = useState(false);
  return (
    <>
      <div className="head">
        <PageTitle>Adoptions</PageTitle>
        <span className="soft">Which installations exist already, and what do their accounts hold?</span>
        <span className="grow" />
        <Button onClick={() => setBeginning(true)}>Start an adoption…</Button>
      </div>
      {list.isPending && <Loading />}
      {list.error && <Failure error={list.error} />}
      {list.data && (
        <DataTable
          label="Adoptions"
          rows={list.data}
          columns={columns}
          empty="No adoption yet. Name the accounts of an existing installation: what they hold becomes a sheet and an install."
        />
      )}
      {beginning && <BeginForm close={() => setBeginning(false)} />}
    </>
  );
}
