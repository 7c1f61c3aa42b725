import { AppShell, Button, Group, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link, Navigate, Outlet } from '@tanstack/react-router';
import { api, ApiError } from './api/client';
import { me } from './api/queries';
import { Failure } from './parts/Failure';
import { Loading } from './parts/Loading';

/** What stands around every page: the name, the pages, who is signed in. */
export function Frame() {
  const who = useQuery(me);
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  if (who.error instanceof ApiError && who.error.status === 401) return <Navigate to="/enter" />;
  const signOut = async () => {
    await api.POST('/api/sign-out');
    window.location.assign('/enter');
  };
  return (
    <AppShell header={{ height: 44 }} padding="md">
      <AppShell.Header px="md">
        <Group h="100%" gap="lg">
          <strong>Just Right</strong>
          <Group component="nav" gap="md" aria-label="Pages">
            <Link to="/installs">Installs</Link>
            <Link to="/passwords">Passwords</Link>
            <Link to="/calendar">Calendar</Link>
            <Link to="/runs">Runs</Link>
            <Link to="/trace">Trace</Link>
            <Link to="/object">Object</Link>
            <Link to="/filter">Filter</Link>
            <Link to="/log">Log</Link>
            <Link to="/find">Find</Link>
          </Group>
          <span style={{ flex: 1 }} />
          <span className="soft">{who.data ? `${who.data.name}, ${who.data.role}` : ''}</span>
          <Button
            size="compact-sm"
            variant="subtle"
            onClick={() => setColorScheme(scheme === 'dark' ? 'light' : 'dark')}
          >
            {scheme === 'dark' ? 'Light' : 'Dark'}
          </Button>
          <Button size="compact-sm" variant="subtle" onClick={() => void signOut()}>
            Sign out
          </Button>
        </Group>
      </AppShell.Header>
      <AppShell.Main>
        {who.isPending ? <Loading /> : who.error ? <Failure error={who.error} /> : <Outlet />}
      </AppShell.Main>
    </AppShell>
  );
}
