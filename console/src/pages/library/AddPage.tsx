import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { PageTitle } from '../../parts/PageTitle';
import { DocumentEditor } from './DocumentEditor';
import { pageOf } from './pageOf';

const route = getRouteApi('/frame/add/$kind');
const articles = { sheet: 'a sheet', estate: 'an estate', install: 'an install' };

/** A document that is new: written, pasted, or read from a file. */
export function AddPage() {
  const { kind } = route.useParams();
  const navigate = useNavigate();
  return (
    <>
      <div className="head">
        <PageTitle>{`Add ${articles[kind]}`}</PageTitle>
        <span className="soft">
          Write it, paste it, or read a file. It is checked while you type; Ctrl-Space shows what may stand there.
        </span>
      </div>
      <DocumentEditor key={kind} kind={kind} name="" text="" onSaved={(name) => void navigate(pageOf(kind, name))} />
    </>
  );
}
