import { ActionIcon, AppShell, Button, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { useDisclosure, useHotkeys } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { Link, Navigate, Outlet, useLocation } from '@tanstack/react-router';
import { api, ApiError } from '../api/client';
import { me } from '../api/queries';
import { Failure } from '../parts/Failure';
import { Loading } from '../parts/Loading';
import { useAllSimulated } from '../parts/Simulated';
import { FindField } from './FindField';
import './frame.css';
import { Help } from './Help';
import { Navigation } from './Navigation';
import { RunBar } from './RunBar';
import { useServiceAway } from './useServiceAway';

/** What stands around every page: search, what goes on, the pages, who is signed in. */
export function Frame() {
  const who = useQuery(me);
  const simulated = useAllSimulated();
  const { href, pathname } = useLocation();
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  const [open, pages] = useDisclosure(false);
  const [keyOpen, key] = useDisclosure(false);
  // with shift or without, as keyboards differ
  useHotkeys([
    ['?', key.open],
    ['shift+?', key.open],
  ]);
  const away = useServiceAway();
  if (who.error instanceof ApiError && who.error.status === 401)
    // while the door is on its way, the address is its own already
    return pathname === '/enter' ? null : <Navigate to="/enter" search={href === '/' ? {} : { to: href }} />;
  const signOut = async () => {
    await api.POST('/api/sign-out');
    window.location.assign('/enter');
  };
  return (
    <AppShell
      header={{ height: 44 }}
      navbar={{ width: 176, breakpoint: 'sm', collapsed: { mobile: !open } }}
      padding="md"
    >
      <a className="skip" href="#main">
        To the page
      </a>
      <AppShell.Header className="frame-head">
        <ActionIcon
          hiddenFrom="sm"
          variant="subtle"
          color="dark"
          aria-label="Pages"
          aria-expanded={open}
          onClick={pages.toggle}
        >
          ≡
        </ActionIcon>
        <Link to="/" className="name">
          Just Right
        </Link>
        <FindField />
        <RunBar />
        <span className="grow" />
        {simulated && <span className="tag">simulated</span>}
        <span className="soft who">{who.data ? `${who.data.name}, ${who.data.role}` : ''}</span>
        <ActionIcon variant="subtle" color="dark" aria-label="Signs and keys" onClick={key.open}>
          ?
        </ActionIcon>
        <Help opened={keyOpen} onClose={key.close} />
        <Button size="compact-sm" variant="subtle" onClick={() => setColorScheme(scheme === 'dark' ? 'light' : 'dark')}>
          {scheme === 'dark' ? 'Light' : 'Dark'}
        </Button>
        <Button size="compact-sm" variant="subtle" onClick={() => void signOut()}>
          Sign out
        </Button>
      </AppShell.Header>
      <AppShell.Navbar>
        <Navigation onGo={pages.close} />
      </AppShell.Navbar>
      <AppShell.Main id="main">
        <div role="status">
          {away && (
            <p className="away">
              The service does not answer. It is asked again every few seconds; what you typed stays here.
            </p>
          )}
        </div>
        {who.isPending ? <Loading /> : who.error ? <Failure error={who.error} /> : <Outlet />}
      </AppShell.Main>
    </AppShell>
  );
}
