import { useQuery } from '@tanstack/react-query';
import { estates as estatesQuery } from '../api/queries';

/** The organization's time zone: that of its estates where all have the same, otherwise UTC. */
export function useZone(): string {
  const zones = new Set(
    useQuery(estatesQuery)
      .data?.map((e) => e.timeZone)
      .filter((zone) => zone !== ''),
  );
  const [first] = zones;
  return zones.size === 1 && first ? first : 'UTC';
}
