import type { TraceOrder } from '../../api/schema.gen';

/** What an account can be asked to be able to do, in the words of sheets. */
export const acts = [
  'write attributes',
  'read attributes',
  'change membership',
  'create',
  'delete',
  'move',
  'reset password',
  'unlock',
  'join computers',
  'full control',
];

/** The fields of the form, as text; also the page's address, so that a question can be sent to someone. */
export interface TraceFields {
  estate?: string | undefined;
  account?: string | undefined;
  service?: string | undefined;
  host?: string | undefined;
  act?: string | undefined;
  attributes?: string[] | undefined;
  of?: string | undefined;
  below?: string | undefined;
  objects?: string | undefined;
  member?: string | undefined;
  inheriting?: string | undefined;
}

/** Whether an act names attributes. */
export const namesAttributes = (act: string) => act.endsWith('attributes');

const lines = (text: string | undefined) =>
  (text ?? '')
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line.length > 0);

const orNull = (text: string | undefined) => (text?.trim() ? text.trim() : null);

/** The order that the fields make. Objects and groups are one a line: names may hold commas. */
export function orderOf(fields: TraceFields): TraceOrder {
  const act = fields.act ?? 'write attributes';
  return {
    account: orNull(fields.account),
    service: orNull(fields.service),
    host: orNull(fields.host),
    act,
    attributes: namesAttributes(act) ? (fields.attributes ?? []) : [],
    of: orNull(fields.of),
    below: orNull(fields.below),
    objects: lines(fields.objects),
    ifMemberOf: lines(fields.member),
    ifInheriting: lines(fields.inheriting),
  };
}
