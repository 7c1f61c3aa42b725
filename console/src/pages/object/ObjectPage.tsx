import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import {
  controllers as controllersQuery,
  estates as estatesQuery,
  protection as protectionQuery,
} from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { Controllers } from './Controllers';
import { Protection } from './Protection';
import { WholeAccess } from './WholeAccess';
import { PageTitle } from '../../parts/PageTitle';
import { Simulated } from '../../parts/Simulated';
import { useMay } from '../../parts/useMay';

const route = getRouteApi('/frame/object');

/** One object of the directory: do the controllers agree on it, and is it protected from accidental deletion? */
export function ObjectPage() {
  const search = route.useSearch();
  const navigate = useNavigate();
  const estates = useQuery(estatesQuery);
  const name = search.estate ?? estates.data?.[0]?.name ?? '';
  const estate = estates.data?.find((e) => e.name === name);
  const may = useMay('planner');
  const [typed, setTyped] = useState(search.dn ?? '');
  const asked = search.dn ?? '';
  const enabled = name !== '' && asked !== '';
  const protection = useQuery({ ...protectionQuery(name, asked), enabled });
  const dn = protection.data?.dn ?? '';
  const controllers = useQuery({ ...controllersQuery(name, dn), enabled: dn !== '' });
  return (
    <>
      <div className="head">
        <PageTitle>Object</PageTitle>
        <span className="soft">
          Do the domain controllers agree on it, and is it protected from accidental deletion?
        </span>
        <Simulated of={estate?.simulated} />
      </div>
      <form
        aria-label="Object"
        onSubmit={(e) => {
          e.preventDefault();
          void navigate({ to: '/object', search: { estate: name, dn: typed.trim() || undefined } });
        }}
      >
        <Group align="flex-end" gap="sm">
          {(estates.data?.length ?? 0) > 1 && (
            <NativeSelect
              label="In"
              data={estates.data?.map((e) => e.name) ?? []}
              value={name}
              onChange={(e) => void navigate({ to: '/object', search: { estate: e.currentTarget.value } })}
            />
          )}
          <TextInput
            label="A branch of the estate, or a distinguished name"
            list="object-branches"
            value={typed}
            onChange={(e) => setTyped(e.currentTarget.value)}
            w={560}
          />
          <datalist id="object-branches">
            {estate?.branches.map((b) => (
              <option key={b} value={b} />
            ))}
          </datalist>
          <Button type="submit" disabled={!may}>
            Look
          </Button>
        </Group>
      </form>
      {estates.error && <Failure error={estates.error} />}
      {asked === '' && <p className="empty">Enter an object. It is read from the directory now.</p>}
      {enabled && (protection.isPending || (dn !== '' && controllers.isPending)) && <Loading mt="md" />}
      {protection.error && <Failure error={protection.error} />}
      {protection.data && <Protection estate={name} protection={protection.data} />}
      {controllers.error && <Failure error={controllers.error} />}
      {controllers.data && <Controllers compared={controllers.data} />}
      {dn !== '' && <WholeAccess key={dn} estate={name} dn={dn} />}
    </>
  );
}
