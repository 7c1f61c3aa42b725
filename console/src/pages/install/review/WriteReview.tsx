import { Button, Group, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../../api/client';
import { history as historyQuery } from '../../../api/queries';
import { Failure } from '../../../parts/Failure';

/** Writes down that somebody looked at the latest fit. */
export function WriteReview({ install, mayWrite }: { install: string; mayWrite: boolean }) {
  const cache = useQueryClient();
  const history = useQuery(historyQuery(install));
  const [by, setBy] = useState('');
  const [nextBy, setNextBy] = useState('');
  const [remark, setRemark] = useState('');
  const latest = history.data?.[0];
  const write = useMutation({
    mutationFn: (fit: number) =>
      need(
        api.POST('/api/installs/{name}/reviews', {
          params: { path: { name: install } },
          body: { fit, by: by.trim() || null, nextBy: nextBy || null, remark: remark.trim() || null },
        }),
      ),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['install', install] }),
  });
  if (!latest) return null;
  return (
    <section aria-label="write a review">
      <h2>Review fit {latest.number}</h2>
      <p className="soft">
        The review records who looked, the fit, and which deviations are accepted until when. What is open above is
        recorded as open.
      </p>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          write.mutate(latest.number);
        }}
      >
        <Group align="end">
          <TextInput
            label="Who looked"
            placeholder="you"
            maxLength={128}
            value={by}
            onChange={(e) => setBy(e.currentTarget.value)}
          />
          <TextInput label="Again by" type="date" value={nextBy} onChange={(e) => setNextBy(e.currentTarget.value)} />
          <TextInput
            label="Remark"
            maxLength={1000}
            value={remark}
            onChange={(e) => setRemark(e.currentTarget.value)}
            style={{ flex: 1 }}
          />
          <Button type="submit" loading={write.isPending} disabled={!mayWrite}>
            Record it
          </Button>
        </Group>
      </form>
      {!mayWrite && <p className="soft">You need the planner role to record this.</p>}
      {write.isSuccess && <p role="status">Recorded as review {write.data.number}.</p>}
      {write.error && <Failure error={write.error} />}
    </section>
  );
}
