import { TextInput } from '@mantine/core';
import { useDebouncedValue, useHotkeys } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi } from '@tanstack/react-router';
import { useRef } from 'react';
import { search as searchQuery } from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { FoundTable } from './FoundTable';

const route = getRouteApi('/frame/find');

/** One search over everything; what is looked for stands in the address, so that it can be passed on. */
export function FindPage() {
  const { words = '' } = route.useSearch();
  const navigate = route.useNavigate();
  const field = useRef<HTMLInputElement>(null);
  useHotkeys([['/', () => field.current?.focus()]]);
  const [asked] = useDebouncedValue(words.trim(), 250);
  const found = useQuery({ ...searchQuery(asked), enabled: asked !== '' });
  return (
    <>
      <div className="head">
        <h1>Find</h1>
        <span className="soft">
          In installs, sheets, estates, hosts, instances, accounts, groups, runs and the log.
        </span>
      </div>
      <TextInput
        ref={field}
        autoFocus
        aria-label="Find words"
        placeholder="Words, each of which must be contained (/)"
        value={words}
        onChange={(e) => void navigate({ search: { words: e.currentTarget.value }, replace: true })}
        maw={480}
        mb="sm"
      />
      {asked !== '' && found.isPending && <Loading />}
      {found.error && <Failure error={found.error} />}
      {asked !== '' && found.data && <FoundTable found={found.data} words={asked} />}
    </>
  );
}
