import type { DocumentKind } from '../api/libraryQueries';
import estate from '../../../schemas/estate.schema.json';
import install from '../../../schemas/install.schema.json';
import sheet from '../../../schemas/sheet.schema.json';
import type { Schema } from './schemaCompletion';

/** The published schemas, by the kind of document. */
export const schemas: Record<DocumentKind, Schema> = {
  sheet: sheet as Schema,
  estate: estate as Schema,
  install: install as Schema,
};
