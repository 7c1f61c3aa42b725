import { NativeSelect } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { estates as estatesQuery } from '../api/queries';
import { Failure } from './Failure';
import { Loading } from './Loading';

/** The estate that a page is about: the one that its address names, or the first; and how to choose another. */
export function useEstate(named: string | undefined, onChoose: (estate: string) => void) {
  const estates = useQuery(estatesQuery);
  const name = named ?? estates.data?.[0]?.name ?? '';
  const field = (
    <>
      {estates.isPending && <Loading />}
      {estates.error && <Failure error={estates.error} />}
      {estates.data?.length === 0 && (
        <p className="empty">
          There is no estate yet. <Link to="/estates">Add one</Link>.
        </p>
      )}
      {(estates.data?.length ?? 0) > 1 && (
        <NativeSelect
          aria-label="Estate"
          size="xs"
          data={estates.data?.map((e) => e.name) ?? []}
          value={name}
          onChange={(e) => onChoose(e.currentTarget.value)}
        />
      )}
    </>
  );
  return { name, estate: estates.data?.find((e) => e.name === name), field };
}
