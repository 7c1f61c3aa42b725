import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { ListOrder } from '../parts/useListOrder';
import { api, need } from './client';

/** What was told of an estate, newest first. */
export const notifications = (name: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'notifications', order],
    queryFn: () => need(api.GET('/api/estates/{name}/notifications', { params: { path: { name }, query: order } })),
    placeholderData: keepPreviousData,
  });

/** When an estate is surveyed by itself, and who is told. */
export const schedule = (name: string) =>
  queryOptions({
    queryKey: ['estate', name, 'schedule'],
    queryFn: () => need(api.GET('/api/estates/{name}/schedule', { params: { path: { name } } })),
  });

/** The secrets, and what each is allowed for. */
export const secrets = queryOptions({
  queryKey: ['secrets'],
  queryFn: () => need(api.GET('/api/secrets')),
  retry: false,
});

/** The tokens. */
export const tokens = queryOptions({
  queryKey: ['tokens'],
  queryFn: () => need(api.GET('/api/tokens')),
  retry: false,
});

/** Who is signed in to the console. */
export const sessions = queryOptions({
  queryKey: ['sessions'],
  queryFn: () => need(api.GET('/api/sessions')),
  retry: false,
});

/** The key by which evidence is signed. */
export const evidenceKey = queryOptions({
  queryKey: ['evidence-key'],
  queryFn: () => need(api.GET('/api/evidence-key')),
  retry: false,
});
