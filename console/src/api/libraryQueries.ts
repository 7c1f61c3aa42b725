import { queryOptions } from '@tanstack/react-query';
import { api, need } from './client';

const of = (name: string) => ({ params: { path: { name } } });

/** The sheet and the install that an adoption comes to; nothing is stored. */
export const adoptionDraft = (name: string) =>
  queryOptions({
    queryKey: ['adoptions', name, 'draft'],
    queryFn: () => need(api.GET('/api/adoptions/{name}/draft', { params: { path: { name } } })),
    retry: false,
  });

/** All sheets. */
export const sheets = queryOptions({ queryKey: ['sheets'], queryFn: () => need(api.GET('/api/sheets')) });

/** One sheet with its text. */
export const sheet = (name: string) =>
  queryOptions({ queryKey: ['sheet', name], queryFn: () => need(api.GET('/api/sheets/{name}', of(name))) });

/** The kinds of document. */
export type DocumentKind = 'sheet' | 'estate' | 'install';

/** The versions of a document, the latest first. */
export const versions = (kind: DocumentKind, name: string) =>
  queryOptions({
    queryKey: [kind, name, 'versions'],
    queryFn: () => need(api.GET('/api/documents/{kind}/{name}/versions', { params: { path: { kind, name } } })),
  });

/** One version of a document with its text. */
export const version = (kind: DocumentKind, name: string, number: number) =>
  queryOptions({
    queryKey: [kind, name, 'versions', number],
    queryFn: () =>
      need(api.GET('/api/documents/{kind}/{name}/versions/{number}', { params: { path: { kind, name, number } } })),
    staleTime: Infinity,
  });

/** What two versions of a document say differently. */
export const versionChanges = (kind: DocumentKind, name: string, from: number, to: number) =>
  queryOptions({
    queryKey: [kind, name, 'changes', from, to],
    queryFn: () =>
      need(api.GET('/api/documents/{kind}/{name}/changes', { params: { path: { kind, name }, query: { from, to } } })),
    staleTime: Infinity,
  });

/** A rehearsal of an estate; fails with 404 while there is none. */
export const rehearsal = (name: string) =>
  queryOptions({
    queryKey: ['estate', name, 'rehearsal'],
    queryFn: () => need(api.GET('/api/estates/{name}/rehearsal', of(name))),
    retry: false,
  });

/** What an install of a sheet in an estate has to say. */
export const asked = (name: string, estate: string) =>
  queryOptions({
    queryKey: ['sheet', name, 'asked', estate],
    queryFn: () => need(api.GET('/api/sheets/{name}/asked', { params: { path: { name }, query: { estate } } })),
  });
