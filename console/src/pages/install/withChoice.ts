import { Document, parseDocument } from 'yaml';

/** A choice among alternatives, as an install says it. */
export interface SaidChoice {
  take: string;
  why: string;
  by: string;
}

/** The text of an install with a choice in it; comments and layout stay as their author wrote them. */
export function withChoice(text: string, decision: string, choice: SaidChoice): string {
  const read = parseDocument(text);
  if (!read.hasIn(['choices'])) read.setIn(['choices'], new Document({}).contents);
  read.setIn(['choices', decision], read.createNode(choice, { flow: true }));
  return read.toString({ lineWidth: 0 });
}
