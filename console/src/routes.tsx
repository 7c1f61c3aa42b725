import { createRootRoute, createRoute, createRouter, redirect } from '@tanstack/react-router';
import { AccountPage } from './pages/account/AccountPage';
import { FilterPage } from './pages/filter/FilterPage';
import { FindPage } from './pages/find/FindPage';
import { HostPage } from './pages/host/HostPage';
import { InstancePage } from './pages/instance/InstancePage';
import { EnterPage } from './pages/enter/EnterPage';
import { InstallPage } from './pages/install/InstallPage';
import { type InstallTab, isInstallTab } from './pages/install/tabs';
import { AdoptionPage } from './pages/adoptions/AdoptionPage';
import { AdoptionsPage } from './pages/adoptions/AdoptionsPage';
import { CalendarPage } from './pages/calendar/CalendarPage';
import { InstallsPage } from './pages/installs/InstallsPage';
import { LogPage } from './pages/log/LogPage';
import { ObjectPage } from './pages/object/ObjectPage';
import { PasswordPage } from './pages/passwords/PasswordPage';
import { PasswordsPage } from './pages/passwords/PasswordsPage';
import { RunPage } from './pages/runs/RunPage';
import { RunsPage } from './pages/runs/RunsPage';
import type { TraceFields } from './pages/trace/order';
import { TracePage } from './pages/trace/TracePage';
import { Frame } from './Frame';

const root = createRootRoute();
const enter = createRoute({ getParentRoute: () => root, path: '/enter', component: EnterPage });
const frame = createRoute({ getParentRoute: () => root, id: 'frame', component: Frame });
const home = createRoute({
  getParentRoute: () => frame,
  path: '/',
  beforeLoad: () => {
    throw redirect({ to: '/installs' });
  },
});
const installs = createRoute({ getParentRoute: () => frame, path: '/installs', component: InstallsPage });
const install = createRoute({
  getParentRoute: () => frame,
  path: '/installs/$name',
  validateSearch: (search: Record<string, unknown>): { tab?: InstallTab } =>
    isInstallTab(search.tab) ? { tab: search.tab } : {},
  component: InstallPage,
});
const account = createRoute({
  getParentRoute: () => frame,
  path: '/installs/$name/accounts/$account',
  component: AccountPage,
});
const find = createRoute({
  getParentRoute: () => frame,
  path: '/find',
  validateSearch: (search: Record<string, unknown>): { words?: string } =>
    typeof search.words === 'string' && search.words ? { words: search.words } : {},
  component: FindPage,
});
const runs = createRoute({ getParentRoute: () => frame, path: '/runs', component: RunsPage });
const run = createRoute({ getParentRoute: () => frame, path: '/runs/$id', component: RunPage });
const text = (value: unknown) => (typeof value === 'string' && value ? value : undefined);
const trace = createRoute({
  getParentRoute: () => frame,
  path: '/trace',
  validateSearch: (search: Record<string, unknown>): TraceFields & { job?: string | undefined } => ({
    job: text(search.job),
    estate: text(search.estate),
    account: text(search.account),
    act: text(search.act),
    attributes: Array.isArray(search.attributes) ? search.attributes.filter((a) => typeof a === 'string') : undefined,
    of: text(search.of),
    below: text(search.below),
  }),
  component: TracePage,
});
const object = createRoute({
  getParentRoute: () => frame,
  path: '/object',
  validateSearch: (search: Record<string, unknown>): { estate?: string | undefined; dn?: string | undefined } => ({
    estate: text(search.estate),
    dn: text(search.dn),
  }),
  component: ObjectPage,
});
const filter = createRoute({
  getParentRoute: () => frame,
  path: '/filter',
  validateSearch: (
    search: Record<string, unknown>,
  ): { estate?: string | undefined; directory?: string | undefined; filter?: string | undefined } => ({
    estate: text(search.estate),
    directory: text(search.directory),
    filter: text(search.filter),
  }),
  component: FilterPage,
});
const host = createRoute({
  getParentRoute: () => frame,
  path: '/estates/$estate/hosts/$host',
  component: HostPage,
});
const instance = createRoute({
  getParentRoute: () => frame,
  path: '/estates/$estate/instances/$instance',
  component: InstancePage,
});
const passwords = createRoute({
  getParentRoute: () => frame,
  path: '/passwords',
  validateSearch: (search: Record<string, unknown>): { estate?: string | undefined } => ({
    estate: text(search.estate),
  }),
  component: PasswordsPage,
});
const password = createRoute({
  getParentRoute: () => frame,
  path: '/passwords/$estate/$account',
  component: PasswordPage,
});
const calendar = createRoute({
  getParentRoute: () => frame,
  path: '/calendar',
  validateSearch: (search: Record<string, unknown>): { estate?: string | undefined } => ({
    estate: text(search.estate),
  }),
  component: CalendarPage,
});
const adoptions = createRoute({ getParentRoute: () => frame, path: '/adoptions', component: AdoptionsPage });
const adoption = createRoute({ getParentRoute: () => frame, path: '/adoptions/$name', component: AdoptionPage });
const log = createRoute({ getParentRoute: () => frame, path: '/log', component: LogPage });

/** Every page of the console. */
export const router = createRouter({
  routeTree: root.addChildren([
    enter,
    frame.addChildren([
      home,
      installs,
      install,
      account,
      trace,
      object,
      filter,
      host,
      instance,
      passwords,
      password,
      calendar,
      find,
      runs,
      run,
      adoptions,
      adoption,
      log,
    ]),
  ]),
});

declare module '@tanstack/react-router' {
  interface Register {
    router: typeof router;
  }
}
