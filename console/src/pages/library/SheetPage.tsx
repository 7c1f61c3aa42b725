import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { sheet as sheetQuery } from '../../api/libraryQueries';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { DocumentEditor } from './DocumentEditor';
import { RemoveDocument } from './RemoveDocument';
import { Versions } from './Versions';

const route = getRouteApi('/frame/sheets/$name');

/** What one product release needs, as its author wrote it. */
export function SheetPage() {
  const { name } = route.useParams();
  const navigate = useNavigate();
  const sheet = useQuery(sheetQuery(name));
  if (!sheet.data) return <PageWithout title={name} error={sheet.error} />;
  const { summary, text } = sheet.data;
  return (
    <>
      <div className="head">
        <PageTitle>{name}</PageTitle>
        <span>{summary.title}</span>
        <span className="soft">
          {summary.accounts} accounts, {summary.needs} needs; {summary.source}
        </span>
        <span className="grow" />
        <Link to="/new-install" search={{ sheet: name }}>
          Install it
        </Link>
        <RemoveDocument kind="sheet" name={name} onGone={() => void navigate({ to: '/sheets' })} />
      </div>
      {summary.remarks.map((remark) => (
        <p key={remark}>{remark}</p>
      ))}
      <DocumentEditor
        kind="sheet"
        name={name}
        text={text}
        onSaved={(saved) => void navigate({ to: '/sheets/$name', params: { name: saved } })}
      />
      <Versions kind="sheet" name={name} />
    </>
  );
}
