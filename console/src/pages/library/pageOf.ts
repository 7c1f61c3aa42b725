import { linkOptions } from '@tanstack/react-router';
import type { DocumentKind } from '../../api/libraryQueries';

/** The page of a document. */
export function pageOf(kind: DocumentKind, name: string) {
  if (kind === 'sheet') return linkOptions({ to: '/sheets/$name', params: { name } });
  if (kind === 'estate') return linkOptions({ to: '/estates/$estate', params: { estate: name } });
  return linkOptions({ to: '/installs/$name', params: { name } });
}
