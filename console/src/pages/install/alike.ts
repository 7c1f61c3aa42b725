import type { PlannedGrantView } from '../../api/schema.gen';

/** Needs that are alike but for where they hold: the first of them, and all their places. */
export interface AlikeNeeds {
  first: PlannedGrantView;
  places: string[];
}

/** Needs gathered over places, in their order. */
export function alike(grants: PlannedGrantView[]): AlikeNeeds[] {
  const found = new Map<string, AlikeNeeds>();
  for (const grant of grants) {
    const key = JSON.stringify({ ...grant, id: '', place: '' });
    const known = found.get(key);
    if (known) known.places.push(grant.place);
    else found.set(key, { first: grant, places: [grant.place] });
  }
  return [...found.values()];
}
