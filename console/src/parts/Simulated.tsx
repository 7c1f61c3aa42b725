import { useQuery } from '@tanstack/react-query';
import { estates as estatesQuery } from '../api/queries';

/** Whether every estate is simulated: then the frame says so once, for every page. */
export function useAllSimulated(): boolean {
  const estates = useQuery(estatesQuery).data ?? [];
  return estates.length > 0 && estates.every((e) => e.simulated);
}

/** That something is of a simulated estate, where the frame does not say it of everything. */
export function Simulated({ of }: { of: boolean | null | undefined }) {
  const all = useAllSimulated();
  return of && !all ? <span className="tag">simulated</span> : null;
}
