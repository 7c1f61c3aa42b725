import { createRootRoute, createRoute, createRouter, lazyRouteComponent, notFound } from '@tanstack/react-router';
import type { DocumentKind } from './api/libraryQueries';
import { Loading } from './parts/Loading';
import { type InstallTab, isInstallTab } from './pages/install/tabs';
import type { TraceFields } from './pages/trace/order';
import { Frame } from './frame/Frame';
import { NotFound } from './frame/NotFound';

const root = createRootRoute();
const enter = createRoute({
  getParentRoute: () => root,
  path: '/enter',
  // only an address of this console is led back to
  validateSearch: (search: Record<string, unknown>): { to?: string } =>
    typeof search.to === 'string' && /^\/(?![/\\])/.test(search.to) ? { to: search.to } : {},
  component: lazyRouteComponent(() => import('./pages/enter/EnterPage'), 'EnterPage'),
});
const frame = createRoute({ getParentRoute: () => root, id: 'frame', component: Frame });
const home = createRoute({
  getParentRoute: () => frame,
  path: '/',
  component: lazyRouteComponent(() => import('./pages/start/StartPage'), 'StartPage'),
});
const installs = createRoute({
  getParentRoute: () => frame,
  path: '/installs',
  component: lazyRouteComponent(() => import('./pages/installs/InstallsPage'), 'InstallsPage'),
});
const install = createRoute({
  getParentRoute: () => frame,
  path: '/installs/$name',
  validateSearch: (search: Record<string, unknown>): { tab?: InstallTab } =>
    isInstallTab(search.tab) ? { tab: search.tab } : {},
  component: lazyRouteComponent(() => import('./pages/install/InstallPage'), 'InstallPage'),
});
const account = createRoute({
  getParentRoute: () => frame,
  path: '/installs/$name/accounts/$account',
  component: lazyRouteComponent(() => import('./pages/account/AccountPage'), 'AccountPage'),
});
const find = createRoute({
  getParentRoute: () => frame,
  path: '/find',
  validateSearch: (search: Record<string, unknown>): { words?: string; go?: boolean } =>
    typeof search.words === 'string' && search.words
      ? { words: search.words, ...(search.go === true ? { go: true } : {}) }
      : {},
  component: lazyRouteComponent(() => import('./pages/find/FindPage'), 'FindPage'),
});
const runs = createRoute({
  getParentRoute: () => frame,
  path: '/runs',
  component: lazyRouteComponent(() => import('./pages/runs/RunsPage'), 'RunsPage'),
});
const run = createRoute({
  getParentRoute: () => frame,
  path: '/runs/$id',
  component: lazyRouteComponent(() => import('./pages/runs/RunPage'), 'RunPage'),
});
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
  component: lazyRouteComponent(() => import('./pages/trace/TracePage'), 'TracePage'),
});
const object = createRoute({
  getParentRoute: () => frame,
  path: '/object',
  validateSearch: (search: Record<string, unknown>): { estate?: string | undefined; dn?: string | undefined } => ({
    estate: text(search.estate),
    dn: text(search.dn),
  }),
  component: lazyRouteComponent(() => import('./pages/object/ObjectPage'), 'ObjectPage'),
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
  component: lazyRouteComponent(() => import('./pages/filter/FilterPage'), 'FilterPage'),
});
const host = createRoute({
  getParentRoute: () => frame,
  path: '/estates/$estate/hosts/$host',
  component: lazyRouteComponent(() => import('./pages/host/HostPage'), 'HostPage'),
});
const instance = createRoute({
  getParentRoute: () => frame,
  path: '/estates/$estate/instances/$instance',
  component: lazyRouteComponent(() => import('./pages/instance/InstancePage'), 'InstancePage'),
});
const passwords = createRoute({
  getParentRoute: () => frame,
  path: '/passwords',
  validateSearch: (search: Record<string, unknown>): { estate?: string | undefined } => ({
    estate: text(search.estate),
  }),
  component: lazyRouteComponent(() => import('./pages/passwords/PasswordsPage'), 'PasswordsPage'),
});
const password = createRoute({
  getParentRoute: () => frame,
  path: '/passwords/$estate/$account',
  component: lazyRouteComponent(() => import('./pages/passwords/PasswordPage'), 'PasswordPage'),
});
const calendar = createRoute({
  getParentRoute: () => frame,
  path: '/calendar',
  validateSearch: (search: Record<string, unknown>): { estate?: string | undefined } => ({
    estate: text(search.estate),
  }),
  component: lazyRouteComponent(() => import('./pages/calendar/CalendarPage'), 'CalendarPage'),
});
const adoptions = createRoute({
  getParentRoute: () => frame,
  path: '/adoptions',
  component: lazyRouteComponent(() => import('./pages/adoptions/AdoptionsPage'), 'AdoptionsPage'),
});
const adoption = createRoute({
  getParentRoute: () => frame,
  path: '/adoptions/$name',
  component: lazyRouteComponent(() => import('./pages/adoptions/AdoptionPage'), 'AdoptionPage'),
});
const log = createRoute({
  getParentRoute: () => frame,
  path: '/log',
  component: lazyRouteComponent(() => import('./pages/log/LogPage'), 'LogPage'),
});

/** An estate that a page is about. */
const ofEstate = (search: Record<string, unknown>): { estate?: string | undefined } => ({
  estate: text(search.estate),
});
const accounts = createRoute({
  getParentRoute: () => frame,
  path: '/accounts',
  validateSearch: ofEstate,
  component: lazyRouteComponent(() => import('./pages/estate-lists/AccountsPage'), 'AccountsPage'),
});
const groups = createRoute({
  getParentRoute: () => frame,
  path: '/groups',
  validateSearch: ofEstate,
  component: lazyRouteComponent(() => import('./pages/estate-lists/GroupsPage'), 'GroupsPage'),
});
const hosts = createRoute({
  getParentRoute: () => frame,
  path: '/hosts',
  validateSearch: ofEstate,
  component: lazyRouteComponent(() => import('./pages/estate-lists/HostsPage'), 'HostsPage'),
});
const instances = createRoute({
  getParentRoute: () => frame,
  path: '/instances',
  validateSearch: ofEstate,
  component: lazyRouteComponent(() => import('./pages/estate-lists/InstancesPage'), 'InstancesPage'),
});
const units = createRoute({
  getParentRoute: () => frame,
  path: '/ous',
  validateSearch: ofEstate,
  component: lazyRouteComponent(() => import('./pages/estate-lists/UnitsPage'), 'UnitsPage'),
});
const policies = createRoute({
  getParentRoute: () => frame,
  path: '/policies',
  validateSearch: ofEstate,
  component: lazyRouteComponent(() => import('./pages/estate-lists/PoliciesPage'), 'PoliciesPage'),
});
const policy = createRoute({
  getParentRoute: () => frame,
  path: '/estates/$estate/policies/$policy',
  component: lazyRouteComponent(() => import('./pages/policy/PolicyPage'), 'PolicyPage'),
});
const reviews = createRoute({
  getParentRoute: () => frame,
  path: '/reviews',
  validateSearch: ofEstate,
  component: lazyRouteComponent(() => import('./pages/estate-lists/ReviewsPage'), 'ReviewsPage'),
});
const sheets = createRoute({
  getParentRoute: () => frame,
  path: '/sheets',
  component: lazyRouteComponent(() => import('./pages/library/SheetsPage'), 'SheetsPage'),
});
const sheet = createRoute({
  getParentRoute: () => frame,
  path: '/sheets/$name',
  component: lazyRouteComponent(() => import('./pages/library/SheetPage'), 'SheetPage'),
});
const estates = createRoute({
  getParentRoute: () => frame,
  path: '/estates',
  component: lazyRouteComponent(() => import('./pages/library/EstatesPage'), 'EstatesPage'),
});
const estate = createRoute({
  getParentRoute: () => frame,
  path: '/estates/$estate',
  component: lazyRouteComponent(() => import('./pages/library/EstatePage'), 'EstatePage'),
});
const kinds: DocumentKind[] = ['sheet', 'estate', 'install'];
const add = createRoute({
  getParentRoute: () => frame,
  path: '/add/$kind',
  params: {
    parse: ({ kind }: { kind: string }): { kind: DocumentKind } => {
      const known = kinds.find((k) => k === kind);
      if (!known) throw notFound();
      return { kind: known };
    },
    stringify: ({ kind }) => ({ kind }),
  },
  component: lazyRouteComponent(() => import('./pages/library/AddPage'), 'AddPage'),
});
const newInstall = createRoute({
  getParentRoute: () => frame,
  path: '/new-install',
  validateSearch: (search: Record<string, unknown>): { sheet?: string | undefined; estate?: string | undefined } => ({
    sheet: text(search.sheet),
    estate: text(search.estate),
  }),
  component: lazyRouteComponent(() => import('./pages/library/NewInstallPage'), 'NewInstallPage'),
});
const newSheet = createRoute({
  getParentRoute: () => frame,
  path: '/new-sheet',
  component: lazyRouteComponent(() => import('./pages/library/NewSheetPage'), 'NewSheetPage'),
});
const secrets = createRoute({
  getParentRoute: () => frame,
  path: '/secrets',
  component: lazyRouteComponent(() => import('./pages/organization/SecretsPage'), 'SecretsPage'),
});
const tokens = createRoute({
  getParentRoute: () => frame,
  path: '/tokens',
  component: lazyRouteComponent(() => import('./pages/organization/TokensPage'), 'TokensPage'),
});
const notifications = createRoute({
  getParentRoute: () => frame,
  path: '/notifications',
  validateSearch: ofEstate,
  component: lazyRouteComponent(() => import('./pages/organization/NotificationsPage'), 'NotificationsPage'),
});
const service = createRoute({
  getParentRoute: () => frame,
  path: '/service',
  component: lazyRouteComponent(() => import('./pages/organization/ServicePage'), 'ServicePage'),
});
const nowhere = createRoute({ getParentRoute: () => frame, path: '$', component: NotFound });

/** Every page of the console. */
export const router = createRouter({
  defaultPendingComponent: Loading,
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
      accounts,
      groups,
      hosts,
      instances,
      units,
      policies,
      policy,
      reviews,
      sheets,
      sheet,
      estates,
      estate,
      add,
      newInstall,
      newSheet,
      secrets,
      tokens,
      notifications,
      service,
      nowhere,
    ]),
  ]),
});

declare module '@tanstack/react-router' {
  interface Register {
    router: typeof router;
  }
}
