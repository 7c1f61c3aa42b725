import { Button, Group, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useMutation, useQuery } from '@tanstack/react-query';
import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { estates as estatesQuery, filterLook } from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { mostTaken, useListOrder } from '../../parts/useListOrder';
import { FilterBuilder } from './FilterBuilder';
import { Found } from './Found';
import { PageTitle } from '../../parts/PageTitle';
import { Simulated } from '../../parts/Simulated';
import { useMay } from '../../parts/useMay';

const route = getRouteApi('/frame/filter');

/** Whom does a filter find? Written or built, said in words, and counted as one types. */
export function FilterPage() {
  const search = route.useSearch();
  const navigate = useNavigate();
  const estates = useQuery(estatesQuery);
  const may = useMay('planner');
  const name = search.estate ?? estates.data?.[0]?.name ?? '';
  const directories = estates.data?.find((e) => e.name === name)?.peopleDirectories ?? [];
  const directory = directories.find((d) => d.key === search.directory) ?? directories[0];
  const [filter, setFilter] = useState(search.filter ?? '(objectClass=*)');
  const [below, setBelow] = useState('');
  const [typed] = useDebouncedValue(filter, 250);
  const [branch] = useDebouncedValue(below, 250);
  const key = directory?.key ?? '';
  const asking = useListOrder();
  const look = useQuery({ ...filterLook(name, key, typed, branch, asking.order), enabled: key !== '' });
  const ask = useMutation({
    mutationFn: () =>
      need(
        api.POST('/api/estates/{name}/people-directories/{directory}/filter/ask', {
          params: { path: { name, directory: key }, query: { take: mostTaken } },
          body: { filter, below: below || null },
        }),
      ),
  });
  const change = (text: string) => {
    setFilter(text);
    asking.onSkip(0);
    ask.reset();
  };
  const pick = (next: { estate?: string; directory?: string }) => {
    ask.reset();
    void navigate({ to: '/filter', search: { estate: name, directory: key, filter, ...next } });
  };
  return (
    <>
      <div className="head">
        <PageTitle>Filter</PageTitle>
        <span className="soft">Whom does it find?</span>
        <Simulated of={directory?.simulated} />
      </div>
      {estates.error && <Failure error={estates.error} />}
      {estates.data && directories.length === 0 && <p className="empty">This estate has no people-directories.</p>}
      {directory && (
        <>
          <Group align="flex-end" gap="sm" mb="sm">
            {(estates.data?.length ?? 0) > 1 && (
              <NativeSelect
                label="In"
                data={estates.data?.map((e) => e.name) ?? []}
                value={name}
                onChange={(e) => pick({ estate: e.currentTarget.value })}
              />
            )}
            <NativeSelect
              label="Directory"
              data={directories.map((d) => d.key)}
              value={key}
              onChange={(e) => pick({ directory: e.currentTarget.value })}
            />
            <TextInput
              label="Below"
              description="A distinguished name; empty for all people and groups"
              list="filter-branches"
              value={below}
              onChange={(e) => {
                setBelow(e.currentTarget.value);
                asking.onSkip(0);
              }}
              w={460}
            />
            <datalist id="filter-branches">
              <option value={directory.peopleIn} />
              <option value={directory.groupsIn} />
            </datalist>
          </Group>
          <Textarea
            label="Filter"
            autosize
            minRows={2}
            value={filter}
            onChange={(e) => change(e.currentTarget.value)}
            styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)' } }}
          />
          <FilterBuilder family={directory.family} filter={filter} onChange={change} />
          {look.error && !ask.data && <Failure error={look.error} />}
          {look.data?.fault && (
            <p role="alert" className="outcome-fail">
              Character {look.data.fault.position + 1}: {look.data.fault.message} Expected: {look.data.fault.expected}.
            </p>
          )}
          <Group gap="sm" my="sm">
            <Button
              variant="default"
              size="xs"
              onClick={() => ask.mutate()}
              loading={ask.isPending}
              disabled={!may || look.data?.fault != null}
            >
              Ask the directory now
            </Button>
            <span className="soft">instead of the people last read</span>
          </Group>
          {ask.error && <Failure error={ask.error} />}
          {(ask.data ?? look.data) && <Found view={ask.data ?? look.data} asking={ask.data ? undefined : asking} />}
        </>
      )}
    </>
  );
}
