import type { CalendarEntryView } from '../../api/schema.gen';
import type { InstallTab } from '../install/tabs';

type Kind = CalendarEntryView['kind'];

/** What comes to an end, in words. */
export const words: Record<Kind, string> = {
  password: 'password',
  review: 'review',
  exception: 'exception ends',
  confirmation: 'confirmation ends',
  removal: 'removal',
};

const tabs: Partial<Record<Kind, InstallTab>> = { review: 'review', exception: 'review', removal: 'worklist' };

/** Where on the page of an install something is done about it. */
export function tabOf(kind: Kind): { tab?: InstallTab } {
  const tab = tabs[kind];
  return tab ? { tab } : {};
}
