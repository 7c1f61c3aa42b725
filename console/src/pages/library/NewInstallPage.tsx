import { NativeSelect } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { asked as askedQuery, sheets as sheetsQuery } from '../../api/libraryQueries';
import { estates as estatesQuery } from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';
import { InstallForm } from './InstallForm';

const route = getRouteApi('/frame/new-install');

/** One product in one estate, by steps: which, where, and what the sheet leaves open; then its text, and what it comes to. */
export function NewInstallPage() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const sheets = useQuery(sheetsQuery);
  const estates = useQuery(estatesQuery);
  const error = sheets.error ?? estates.error;
  return (
    <>
      <div className="head">
        <PageTitle>New install</PageTitle>
        <span className="soft">One product in one estate: just what its sheet leaves open is asked.</span>
      </div>
      {(sheets.isPending || estates.isPending) && <Loading />}
      {error && <Failure error={error} />}
      {sheets.data?.length === 0 && (
        <p className="empty">
          There is no sheet yet. <Link to="/new-sheet">Make one from a vendor’s table</Link>, or{' '}
          <Link to="/add/$kind" params={{ kind: 'sheet' }}>
            write one
          </Link>
          .
        </p>
      )}
      {estates.data?.length === 0 && (
        <p className="empty">
          There is no estate yet.{' '}
          <Link to="/add/$kind" params={{ kind: 'estate' }}>
            Add yours
          </Link>
          .
        </p>
      )}
      <div className="head">
        <NativeSelect
          label="The product"
          data={['', ...(sheets.data?.map((s) => s.name) ?? [])]}
          value={search.sheet ?? ''}
          onChange={(e) => void navigate({ search: { ...search, sheet: e.currentTarget.value } })}
        />
        <NativeSelect
          label="The estate"
          data={['', ...(estates.data?.map((e) => e.name) ?? [])]}
          value={search.estate ?? ''}
          onChange={(e) => void navigate({ search: { ...search, estate: e.currentTarget.value } })}
        />
      </div>
      {search.sheet && search.estate && (
        <Answers key={`${search.sheet} ${search.estate}`} sheet={search.sheet} estate={search.estate} />
      )}
    </>
  );
}

function Answers({ sheet, estate }: { sheet: string; estate: string }) {
  const asked = useQuery(askedQuery(sheet, estate));
  if (asked.isPending) return <Loading />;
  if (asked.error) return <Failure error={asked.error} />;
  return <InstallForm asked={asked.data} />;
}
