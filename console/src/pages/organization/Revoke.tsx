import { Button } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Failure } from '../../parts/Failure';

/** Ends something, after a second press that names it. */
export function Revoke({ what, act }: { what: string; act: () => Promise<unknown> }) {
  const queries = useQueryClient();
  const [sure, setSure] = useState(false);
  const end = useMutation({ mutationFn: act, onSuccess: () => queries.invalidateQueries() });
  return (
    <>
      <Button
        size="compact-sm"
        variant={sure ? 'filled' : 'default'}
        loading={end.isPending}
        aria-label={sure ? `End ${what} for good` : `End ${what}`}
        onClick={() => (sure ? end.mutate() : setSure(true))}
        onBlur={() => setSure(false)}
      >
        {sure ? 'For good' : 'End'}
      </Button>
      {end.error && <Failure error={end.error} />}
    </>
  );
}
