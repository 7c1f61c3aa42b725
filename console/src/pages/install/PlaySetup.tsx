import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, need } from '../../api/client';
import { estates as estatesQuery } from '../../api/queries';
import { Failure } from '../../parts/Failure';

/** In a rehearsal: the product's setup is played, as its sheet says what it makes and gives. */
export function PlaySetup({ name, estate, stage }: { name: string; estate: string; stage: string }) {
  const queries = useQueryClient();
  const estates = useQuery(estatesQuery);
  const play = useMutation({
    mutationFn: () => need(api.POST('/api/installs/{name}/rehearsed-setup', { params: { path: { name } } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  if (stage !== 'planned' || !estates.data?.find((e) => e.name === estate)?.rehearses) return null;
  return (
    <>
      <Button variant="default" loading={play.isPending} onClick={() => play.mutate()}>
        Play the setup
      </Button>
      {play.error && <Failure error={play.error} />}
    </>
  );
}
