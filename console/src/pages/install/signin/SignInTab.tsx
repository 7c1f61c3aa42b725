import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { signIn as signInQuery } from '../../../api/queries';
import type { JobView } from '../../../api/schema.gen';
import type { FollowedJob } from '../../../api/useJob';
import { Copy } from '../../../parts/Dn';
import { Failure } from '../../../parts/Failure';
import { PasswordPlaces } from '../../../parts/PasswordPlaces';
import { Loading } from '../../../parts/Loading';
import { SettingsTable } from './SettingsTable';
import { Findings } from './Findings';
import { SignInTest } from './SignInTest';

interface Props {
  name: string;
  followed: FollowedJob | null;
  follow: (job: JobView) => void;
}

/** How people sign in to a product: what it is told and why, and the sign-in test that proves it. */
export function SignInTab({ name, followed, follow }: Props) {
  const shown = useQuery(signInQuery(name));
  const navigate = useNavigate();
  if (shown.isPending) return <Loading />;
  if (shown.error) return <Failure error={shown.error} />;
  const view = shown.data;
  const filter = (key: string) => view.settings.find((s) => s.key === key)?.value ?? undefined;
  const look = (key: string) =>
    void navigate({
      to: '/filter',
      search: { estate: view.estate, directory: view.directory, filter: filter(key) },
    });
  return (
    <>
      <p>
        People of <b>{view.directory}</b> at <code>{view.host}</code> sign in. Found are {view.peopleWords}.
        {view.groupsWords && <> An administrator sees {view.groupsWords}.</>}
      </p>
      <div className="head">
        {filter('people-filter') && (
          <Button variant="default" size="xs" onClick={() => look('people-filter')}>
            Show whom the people filter finds
          </Button>
        )}
        {filter('groups-filter') && (
          <Button variant="default" size="xs" onClick={() => look('groups-filter')}>
            Show which groups are shown
          </Button>
        )}
      </div>
      <Findings findings={view.findings} />
      <SettingsTable view={view} />
      {view.ldif && (
        <details>
          <summary>What is to be made in {view.directory}, as LDIF for its keepers</summary>
          <div className="file">
            <pre>{view.ldif}</pre>
            <Copy value={view.ldif} what="the LDIF" />
          </div>
        </details>
      )}
      <PasswordPlaces places={view.passwordPlaces} remove={null} />
      <SignInTest name={name} last={view.signInTest ?? null} followed={followed} follow={follow} />
    </>
  );
}
