import { api, ApiError, need } from '../../api/client';
import type { FaultView } from '../../api/problem';
import type { DocumentKind } from '../../api/libraryQueries';

/** The file that a text is kept under. */
export const fileOf = (kind: DocumentKind, name: string) => (name ? `${name.replace(/@.*/, '')}.yaml` : `${kind}.yaml`);

const body = (kind: DocumentKind, name: string, text: string) => ({ body: { file: fileOf(kind, name), text } });

/** What is wrong with a text, as the service says it; it stores nothing. */
export async function check(kind: DocumentKind, name: string, text: string): Promise<FaultView[]> {
  if (text.trim() === '') return [];
  try {
    if (kind === 'sheet') await need(api.POST('/api/sheets/check', body(kind, name, text)));
    else if (kind === 'estate') await need(api.POST('/api/estates/check', body(kind, name, text)));
    else await replacing(kind, name, text);
    return [];
  } catch (error) {
    return error instanceof ApiError ? error.faults : [];
  }
}

/** What adding a text would change, and for which installs; stores nothing. */
export const replacing = (kind: DocumentKind, name: string, text: string) =>
  need(api.POST('/api/documents/{kind}/replacing', { params: { path: { kind } }, ...body(kind, name, text) }));

/** Adds a text, or replaces the document of that name. */
export async function add(kind: DocumentKind, name: string, text: string): Promise<string> {
  if (kind === 'sheet') return (await need(api.POST('/api/sheets', body(kind, name, text)))).summary.name;
  if (kind === 'estate') return (await need(api.POST('/api/estates', body(kind, name, text)))).summary.name;
  return (await need(api.POST('/api/installs', body(kind, name, text)))).summary.name;
}

/** Removes a document; an install that gave rights and is not retired is only forgotten. */
export async function remove(kind: DocumentKind, name: string, forget: boolean): Promise<void> {
  const path = { path: { name } };
  if (kind === 'sheet') await need(api.DELETE('/api/sheets/{name}', { params: path }));
  else if (kind === 'estate') await need(api.DELETE('/api/estates/{name}', { params: path }));
  else await need(api.DELETE('/api/installs/{name}', { params: { ...path, query: { forget } } }));
}
