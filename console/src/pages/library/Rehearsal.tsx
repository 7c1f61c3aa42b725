import { Button, Checkbox, Group } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, ApiError, need } from '../../api/client';
import { rehearsal as rehearsalQuery } from '../../api/libraryQueries';
import type { RehearsalView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { Time } from '../../parts/Time';
import { useMay } from '../../parts/useMay';

/** A simulation of an estate, with its installs: made, looked at, ended. */
export function Rehearsal({ estate }: { estate: string }) {
  const found = useQuery(rehearsalQuery(estate));
  const none = found.error instanceof ApiError && found.error.status === 404;
  return (
    <section aria-label="Rehearsal">
      <h2>Rehearsal</h2>
      {found.isPending && <Loading />}
      {found.error && !none && <Failure error={found.error} />}
      {none && (
        <p className="soft">
          A simulation of this estate with its installs: survey, grant, undo and retire there, and nothing real is
          touched.
        </p>
      )}
      {found.data && !none && <Laid rehearsal={found.data} />}
      {!found.isPending && <Acts estate={estate} laid={!none && found.data !== undefined} />}
    </section>
  );
}

function Laid({ rehearsal }: { rehearsal: RehearsalView }) {
  return (
    <>
      <p>
        <Link to="/estates/$estate" params={{ estate: rehearsal.estate }}>
          {rehearsal.estate}
        </Link>
        , laid <Time value={rehearsal.laidAt} />
        {rehearsal.surveyedAt && (
          <>
            {' '}
            from the survey of <Time value={rehearsal.surveyedAt} />
          </>
        )}
        : {rehearsal.hosts} hosts, {rehearsal.instances} instances, {rehearsal.accounts} accounts, {rehearsal.groups}{' '}
        groups.
      </p>
      <ul>
        {rehearsal.installs.map((install) => (
          <li key={install}>
            <Link to="/installs/$name" params={{ name: install }}>
              {install}
            </Link>
          </li>
        ))}
      </ul>
      {[...rehearsal.mistakes, ...rehearsal.remarks].map((remark) => (
        <p key={remark} className="soft">
          {remark}
        </p>
      ))}
    </>
  );
}

function Acts({ estate, laid }: { estate: string; laid: boolean }) {
  const queries = useQueryClient();
  const [asSurveyed, setAsSurveyed] = useState(false);
  const [sure, setSure] = useState(false);
  const path = { params: { path: { name: estate } } };
  const done = () => queries.invalidateQueries();
  const lay = useMutation({
    mutationFn: () =>
      need(api.POST('/api/estates/{name}/rehearsal', { ...path, body: { fresh: laid, asSurveyed, mistakes: [] } })),
    onSuccess: done,
  });
  const end = useMutation({
    mutationFn: () => need(api.DELETE('/api/estates/{name}/rehearsal', path)),
    onSuccess: () => {
      setSure(false);
      return done();
    },
  });
  const mayNot = !useMay('planner');
  return (
    <>
      <Checkbox
        label="As the latest survey found it, and not as is usual"
        checked={asSurveyed}
        disabled={mayNot}
        onChange={(e) => setAsSurveyed(e.currentTarget.checked)}
        mb="sm"
      />
      <Group>
        <Button variant="default" disabled={mayNot} loading={lay.isPending} onClick={() => lay.mutate()}>
          {laid ? 'Lay it anew' : 'Rehearse'}
        </Button>
        {laid && !sure && (
          <Button variant="default" disabled={mayNot} onClick={() => setSure(true)}>
            End it …
          </Button>
        )}
        {laid && sure && (
          <Button loading={end.isPending} onClick={() => end.mutate()}>
            Remove the rehearsal and its installs
          </Button>
        )}
      </Group>
      {lay.error && <Failure error={lay.error} />}
      {end.error && <Failure error={end.error} />}
    </>
  );
}
