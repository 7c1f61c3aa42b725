import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { replacing } from './documents';

/** For how long the typing rests before the service is asked, in milliseconds. */
const rest = 400;

/** What an install would come to, by its text; nothing is stored, and nothing asked while there is no text. */
export function usePlanOf(text: string | null) {
  const [rested] = useDebouncedValue(text, rest);
  return useQuery({
    queryKey: ['plan-of', rested],
    queryFn: () => replacing('install', '', rested ?? ''),
    enabled: rested !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
}
