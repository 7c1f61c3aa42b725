import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { ListOrder } from '../parts/useListOrder';
import { api, need } from './client';
import type { JobView } from './schema.gen';

/** The most that the service tells of a list at a time. */
const mostTaken = 500;

const of = (name: string) => ({ params: { path: { name } } });

/** The proposals that wait for approval or for being carried out. */
export const proposals = queryOptions({ queryKey: ['proposals'], queryFn: () => need(api.GET('/api/proposals')) });

/** Who is signed in. */
export const me = queryOptions({
  queryKey: ['me'],
  queryFn: () => need(api.GET('/api/me')),
  retry: false,
  staleTime: 60_000,
});

/** A page of the installs with their fit at a glance. */
export const installs = (order: ListOrder) =>
  queryOptions({
    queryKey: ['installs', order],
    queryFn: () => need(api.GET('/api/installs', { params: { query: order } })),
    placeholderData: keepPreviousData,
    // what is being judged anew is soon another
    refetchInterval: (query) => (query.state.data?.items.some((i) => i.isBeingJudged) ? 1000 : false),
  });

/** One install. */
export const install = (name: string) =>
  queryOptions({ queryKey: ['install', name], queryFn: () => need(api.GET('/api/installs/{name}', of(name))) });

/** The fit of an install; fails with 409 while nothing was surveyed. */
export const fit = (name: string) =>
  queryOptions({
    queryKey: ['install', name, 'fit'],
    queryFn: () => need(api.GET('/api/installs/{name}/fit', of(name))),
    retry: false,
  });

/** What of the matrix is asked for. */
export interface MatrixAsked {
  words?: string;
  off?: boolean;
}

/** The matrix of an install; fails with 409 while nothing was surveyed. */
export const matrix = (name: string, asked: MatrixAsked = {}) =>
  queryOptions({
    queryKey: ['install', name, 'matrix', asked],
    queryFn: () => need(api.GET('/api/installs/{name}/matrix', { params: { path: { name }, query: asked } })),
    retry: false,
    placeholderData: (before, query) => (query?.queryKey[1] === name ? before : undefined),
  });

/** All rights of one line of the matrix. */
export const matrixLine = (
  name: string,
  line: { account: string; column: string; right: string },
  asked: MatrixAsked,
) =>
  queryOptions({
    queryKey: ['install', name, 'matrix-line', line, asked],
    queryFn: () =>
      need(api.GET('/api/installs/{name}/matrix/line', { params: { path: { name }, query: { ...line, ...asked } } })),
  });

/** The verdict on one right. */
export const right = (name: string, id: string) =>
  queryOptions({
    queryKey: ['install', name, 'right', id],
    queryFn: () => need(api.GET('/api/installs/{name}/matrix/right', { params: { path: { name }, query: { id } } })),
    retry: false,
  });

/** What people confirmed of an install, newest first, with their proofs. */
export const confirmations = (name: string) =>
  queryOptions({
    queryKey: ['install', name, 'confirmations'],
    queryFn: () => need(api.GET('/api/installs/{name}/confirmations', of(name))),
  });

/** The steps that are left. */
export const worklist = (name: string) =>
  queryOptions({
    queryKey: ['install', name, 'worklist'],
    queryFn: () => need(api.GET('/api/installs/{name}/worklist', of(name))),
    retry: false,
  });

/** How people sign in to a product; fails with 404 where nobody does. */
export const signIn = (name: string) =>
  queryOptions({
    queryKey: ['install', name, 'sign-in'],
    queryFn: () => need(api.GET('/api/installs/{name}/sign-in', of(name))),
    retry: false,
  });

/** Where the password of an account is typed, in all installs of an estate. */
export const passwordPlaces = (name: string, account: string) =>
  queryOptions({
    queryKey: ['estate', name, 'password-places', account],
    queryFn: () =>
      need(api.GET('/api/estates/{name}/password-places', { params: { path: { name }, query: { account } } })),
  });

/** How the results of an install changed, newest first. */
export const history = (name: string) =>
  queryOptions({
    queryKey: ['install', name, 'history'],
    queryFn: () => need(api.GET('/api/installs/{name}/history', { params: { path: { name }, query: { take: 1000 } } })),
  });

/** What is different between a kept fit and the one before it. */
export const drift = (name: string, to: number) =>
  queryOptions({
    queryKey: ['install', name, 'drift', to],
    queryFn: () => need(api.GET('/api/installs/{name}/drift', { params: { path: { name }, query: { to } } })),
    retry: false,
  });

/** What comes to an end, or is to be done, in an estate. */
export const calendar = (name: string, order: Partial<ListOrder> = { take: mostTaken }) =>
  queryOptions({
    queryKey: ['estate', name, 'calendar', order],
    queryFn: () => need(api.GET('/api/estates/{name}/calendar', { params: { path: { name }, query: order } })),
  });

/** What was accepted that is off, the latest first. */
export const exceptions = (name: string) =>
  queryOptions({
    queryKey: ['install', name, 'exceptions'],
    queryFn: () => need(api.GET('/api/installs/{name}/exceptions', of(name))),
  });

/** The reviews of an install, newest first. */
export const reviews = (name: string) =>
  queryOptions({
    queryKey: ['install', name, 'reviews'],
    queryFn: () => need(api.GET('/api/installs/{name}/reviews', of(name))),
  });

/** When each password of an estate is due, and who changes it. */
export const passwords = (name: string) =>
  queryOptions({
    queryKey: ['estate', name, 'passwords'],
    queryFn: () =>
      need(api.GET('/api/estates/{name}/passwords', { params: { path: { name }, query: { take: mostTaken } } })),
  });

/** One password: where it is typed, and what its renewal would do or does. */
export const password = (name: string, account: string) =>
  queryOptions({
    queryKey: ['estate', name, 'passwords', account],
    queryFn: () => need(api.GET('/api/estates/{name}/passwords/{account}', { params: { path: { name, account } } })),
    retry: false,
  });

/** Whom a filter finds among the people last read. */
export const filterLook = (name: string, directory: string, filter: string, below: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'filter', directory, filter, below, order],
    queryFn: () =>
      need(
        api.POST('/api/estates/{name}/people-directories/{directory}/filter', {
          params: { path: { name, directory }, query: order },
          body: { filter, below: below || null },
        }),
      ),
    retry: false,
    placeholderData: (before) => before,
  });

/** What each team is asked to do at each place. */
export const handovers = (name: string, remove: boolean) =>
  queryOptions({
    queryKey: ['install', name, 'handovers', remove],
    queryFn: () => need(api.GET('/api/installs/{name}/handovers', { params: { path: { name }, query: { remove } } })),
    retry: false,
  });

/** A host as the latest survey read it. */
export const host = (name: string, host: string) =>
  queryOptions({
    queryKey: ['estate', name, 'host', host],
    queryFn: () => need(api.GET('/api/estates/{name}/hosts/{host}', { params: { path: { name, host } } })),
    retry: false,
  });

/** A database instance as the latest survey read it. */
export const instance = (name: string, instance: string) =>
  queryOptions({
    queryKey: ['estate', name, 'instance', instance],
    queryFn: () => need(api.GET('/api/estates/{name}/instances/{instance}', { params: { path: { name, instance } } })),
    retry: false,
  });

/** All estates. */
export const estates = queryOptions({ queryKey: ['estates'], queryFn: () => need(api.GET('/api/estates')) });

/** The answer of a trace; it never changes. */
export const trace = (id: string) =>
  queryOptions({
    queryKey: ['trace', id],
    queryFn: () => need(api.GET('/api/jobs/{id}/trace', { params: { path: { id } } })),
    staleTime: Infinity,
    retry: false,
  });

/** Traces of an estate, and what was fixed and undone, newest first. */
export const traces = (name: string) =>
  queryOptions({
    queryKey: ['estate', name, 'traces'],
    queryFn: () => need(api.GET('/api/estates/{name}/traces', of(name))),
  });

/** Whether the controllers of a domain agree on an object. */
export const controllers = (name: string, object: string) =>
  queryOptions({
    queryKey: ['estate', name, 'controllers', object],
    queryFn: () => need(api.GET('/api/estates/{name}/controllers', { params: { path: { name }, query: { object } } })),
    retry: false,
  });

/** Whether an object is protected from accidental deletion. */
export const protection = (name: string, object: string) =>
  queryOptions({
    queryKey: ['estate', name, 'protection', object],
    queryFn: () => need(api.GET('/api/estates/{name}/protection', { params: { path: { name }, query: { object } } })),
    retry: false,
  });

/** How people can sign in. */
export const signInWays = queryOptions({
  queryKey: ['sign-in-ways'],
  queryFn: () => need(api.GET('/api/sign-in/ways')),
  retry: false,
});

/** All adoptions. */
export const adoptions = queryOptions({ queryKey: ['adoptions'], queryFn: () => need(api.GET('/api/adoptions')) });

/** Everything that the accounts of an adoption hold. */
export const adoption = (name: string) =>
  queryOptions({
    queryKey: ['adoptions', name],
    queryFn: () => need(api.GET('/api/adoptions/{name}', { params: { path: { name } } })),
    retry: false,
  });

/** A page of runs without their steps: of an install, of an estate with all its installs, or all. */
export const runs = (of: Partial<ListOrder> & { install?: string; estate?: string }) =>
  queryOptions({
    queryKey: ['runs', of],
    queryFn: () => need(api.GET('/api/runs', { params: { query: of } })),
    placeholderData: keepPreviousData,
  });

/** Runs that go on now, the newest first. */
export const going = queryOptions({
  queryKey: ['runs', 'going'],
  queryFn: () => need(api.GET('/api/runs', { params: { query: { state: 'running', take: 1 } } })),
  refetchInterval: (query) => ((query.state.data?.total ?? 0) > 0 ? 1500 : 10_000),
});

/** The newest runs in one state. */
export const runsThat = (state: JobView['state']) =>
  queryOptions({
    queryKey: ['runs', 'that', state],
    queryFn: () => need(api.GET('/api/runs', { params: { query: { state, take: 10 } } })),
    refetchInterval: 5000,
  });

/** The installs of which least fits, and how many there are. */
export const worst = queryOptions({
  queryKey: ['installs', 'worst'],
  queryFn: () => need(api.GET('/api/installs', { params: { query: { sort: '-fit', take: 20 } } })),
  refetchInterval: (query) => (query.state.data?.items.some((i) => i.isBeingJudged) ? 1000 : false),
});

/** How many installs are just right. */
export const fitting = queryOptions({
  queryKey: ['installs', 'fitting'],
  queryFn: () => need(api.GET('/api/installs', { params: { query: { fit: 'nothing-off', take: 1 } } })),
});

/** A page of the accounts that the installs of an estate use. */
export const accounts = (name: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'accounts', order],
    queryFn: () => need(api.GET('/api/estates/{name}/accounts', { params: { path: { name }, query: order } })),
    placeholderData: keepPreviousData,
  });

/** A page of the groups that the installs of an estate use. */
export const groups = (name: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'groups', order],
    queryFn: () => need(api.GET('/api/estates/{name}/groups', { params: { path: { name }, query: order } })),
    placeholderData: keepPreviousData,
  });

/** A page of the hosts of an estate. */
export const hosts = (name: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'hosts', order],
    queryFn: () => need(api.GET('/api/estates/{name}/hosts', { params: { path: { name }, query: order } })),
    placeholderData: keepPreviousData,
  });

/** One estate with its text. */
export const estate = (name: string) =>
  queryOptions({ queryKey: ['estate', name], queryFn: () => need(api.GET('/api/estates/{name}', of(name))) });

/** What is needed: accounts, groups, rights, each with its line of the sheet. */
export const plan = (name: string) =>
  queryOptions({
    queryKey: ['install', name, 'plan'],
    queryFn: () => need(api.GET('/api/installs/{name}/plan', of(name))),
    retry: false,
  });

/** A page of who can do what at a database instance. */
export const holders = (name: string, instance: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'instance', instance, 'holders', order],
    queryFn: () =>
      need(
        api.GET('/api/estates/{name}/instances/{instance}/holders', {
          params: { path: { name, instance }, query: order },
        }),
      ),
    retry: false,
    placeholderData: keepPreviousData,
  });

/** One run with its steps. */
export const run = (id: string) =>
  queryOptions({
    queryKey: ['run', id],
    queryFn: () => need(api.GET('/api/runs/{id}', { params: { path: { id } } })),
    retry: false,
  });

/** What contains all words, in everything. */
export const search = (words: string) =>
  queryOptions({
    queryKey: ['search', words],
    queryFn: () => need(api.GET('/api/search', { params: { query: { search: words } } })),
    placeholderData: keepPreviousData,
  });

/** How many entries of the log are read at a time. */
export const logPage = 100;

/** The log, newest first, page by page; what is looked for is looked for in all of it. */
export const log = (text: string) =>
  infiniteQueryOptions({
    queryKey: ['log', text],
    queryFn: ({ pageParam }) =>
      need(
        api.GET('/api/log', {
          params: { query: { search: text, take: logPage, ...(pageParam === null ? {} : { before: pageParam }) } },
        }),
      ),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => last.before,
    placeholderData: keepPreviousData,
  });
