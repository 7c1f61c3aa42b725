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

/** What one does about it where it is of an install, in words; for a password, its own page says how. */
export const acts: Record<Kind, string> = {
  password: 'Renew it',
  review: 'Review the install',
  exception: 'Decide again',
  confirmation: 'Confirm again',
  removal: 'See what to remove',
};

const tabs: Partial<Record<Kind, InstallTab>> = { review: 'review', exception: 'review', removal: 'worklist' };

/** Where on the page of an install something is done about it. */
export function tabOf(kind: Kind): { tab?: InstallTab } {
  const tab = tabs[kind];
  return tab ? { tab } : {};
}
