import { useQuery } from '@tanstack/react-query';
import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { estate as estateQuery } from '../../api/queries';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { UnreadParts } from '../../parts/UnreadParts';
import { SurveyEstate } from '../estate-lists/SurveyEstate';
import { DirectoryFile } from './DirectoryFile';
import { DocumentEditor } from './DocumentEditor';
import { Rehearsal } from './Rehearsal';
import { RemoveDocument } from './RemoveDocument';
import { Versions } from './Versions';
import { Simulated } from '../../parts/Simulated';

const route = getRouteApi('/frame/estates/$estate');

/** One estate: its text, what was read of it, its rehearsal. */
export function EstatePage() {
  const { estate: name } = route.useParams();
  const navigate = useNavigate();
  const estate = useQuery(estateQuery(name));
  if (!estate.data) return <PageWithout title={name} error={estate.error} />;
  const { summary, text, survey } = estate.data;
  return (
    <>
      <div className="head">
        <PageTitle>{summary.title}</PageTitle>
        <span>{name}</span>
        <Simulated of={summary.simulated} />
        <span className="grow" />
        <SurveyEstate estate={name} />
        <RemoveDocument kind="estate" name={name} onGone={() => void navigate({ to: '/estates' })} />
      </div>
      {summary.remarks.map((remark) => (
        <p key={remark}>{remark}</p>
      ))}
      {survey && (
        <>
          <p className="soft">
            Read from {survey.readFrom}: {survey.accounts} accounts, {survey.groups} groups, {survey.hosts} hosts,{' '}
            {survey.instances} instances.
          </p>
          <UnreadParts unread={null} parts={survey.unseen} />
        </>
      )}
      <DocumentEditor
        kind="estate"
        name={name}
        text={text}
        onSaved={(saved) => void navigate({ to: '/estates/$estate', params: { estate: saved } })}
      />
      {summary.reach === 'file' && <DirectoryFile estate={name} />}
      {!summary.rehearses && <Rehearsal estate={name} />}
      <Versions kind="estate" name={name} />
    </>
  );
}
