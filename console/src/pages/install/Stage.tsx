import { NativeSelect } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, need } from '../../api/client';
import { me } from '../../api/queries';
import { Failure } from '../../parts/Failure';

const stages = ['planned', 'installed', 'retiring'] as const;

type InstallStage = (typeof stages)[number];

/** How far an install has come, for a person to say: what is judged hangs on it. Nothing of the estate changes. */
export function Stage({ name, stage }: { name: string; stage: string }) {
  const who = useQuery(me);
  const queries = useQueryClient();
  const say = useMutation({
    mutationFn: (next: InstallStage) =>
      need(api.POST('/api/installs/{name}/stage', { params: { path: { name } }, body: { stage: next } })),
    onSettled: () => queries.invalidateQueries(),
  });
  return (
    <>
      <NativeSelect
        aria-label="Stage"
        size="xs"
        data={[...stages]}
        value={say.isPending ? say.variables : stage}
        disabled={say.isPending || !who.data || who.data.role === 'reader'}
        onChange={(event) => say.mutate(event.currentTarget.value as InstallStage)}
      />
      {say.error && <Failure error={say.error} />}
    </>
  );
}
