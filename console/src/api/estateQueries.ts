import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { ListOrder } from '../parts/useListOrder';
import { api, need } from './client';

/** A page of the database instances of an estate. */
export const instances = (name: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'instances', order],
    queryFn: () => need(api.GET('/api/estates/{name}/instances', { params: { path: { name }, query: order } })),
    placeholderData: keepPreviousData,
  });

/** A page of the organizational units that the installs of an estate have to do with. */
export const units = (name: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'ous', order],
    queryFn: () => need(api.GET('/api/estates/{name}/ous', { params: { path: { name }, query: order } })),
    placeholderData: keepPreviousData,
  });

/** A page of the group policies of an estate's domain. */
export const policies = (name: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'policies', order],
    queryFn: () => need(api.GET('/api/estates/{name}/policies', { params: { path: { name }, query: order } })),
    placeholderData: keepPreviousData,
  });

/** One group policy: what it sets, and where that counts. */
export const policy = (name: string, policy: string) =>
  queryOptions({
    queryKey: ['estate', name, 'policies', policy],
    queryFn: () => need(api.GET('/api/estates/{name}/policies/{policy}', { params: { path: { name, policy } } })),
    retry: false,
  });

/** A page of how the installs of an estate stand with their reviews. */
export const reviewStands = (name: string, order: ListOrder) =>
  queryOptions({
    queryKey: ['estate', name, 'reviews', order],
    queryFn: () => need(api.GET('/api/estates/{name}/reviews', { params: { path: { name }, query: order } })),
    placeholderData: keepPreviousData,
  });
