import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useEffect, useRef } from 'react';
import { search as searchQuery } from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { type PageLink, pagesNamed } from '../../frame/pages';
import { FoundTable } from './FoundTable';
import { PageTitle } from '../../parts/PageTitle';

const route = getRouteApi('/frame/find');

/** One search over everything; what is looked for stands in the address, so that it can be passed on. */
export function FindPage() {
  const { words = '', go = false } = route.useSearch();
  const [asked] = useDebouncedValue(words.trim(), 250);
  const found = useQuery({ ...searchQuery(asked), enabled: asked !== '' });
  const pages = pagesNamed(words);
  const list = useRef<HTMLDivElement>(null);
  const isThere = pages.length > 0 || (asked === words.trim() && found.isSuccess && !found.isPlaceholderData);
  // Enter goes to the first that is found, though it be found later
  useEffect(() => {
    if (go && isThere) list.current?.querySelector('a')?.click();
  }, [go, isThere]);
  return (
    <>
      <div className="head">
        <PageTitle>Find</PageTitle>
        <span className="soft">
          In installs, sheets, estates, hosts, instances, accounts, groups, runs and the log.
        </span>
      </div>
      {asked === '' && <p className="empty">Type words into the search above; each must be contained.</p>}
      <div ref={list}>
        <FoundPages pages={pages} />
        {asked !== '' && found.isPending && <Loading />}
        {found.error && <Failure error={found.error} />}
        {asked !== '' && found.data && <FoundTable found={found.data} words={asked} />}
      </div>
    </>
  );
}

/** Pages of which the name matches. */
function FoundPages({ pages }: { pages: PageLink[] }) {
  if (pages.length === 0) return null;
  return (
    <p>
      Pages:{' '}
      {pages.map((page, i) => (
        <span key={page.label}>
          {i > 0 && ', '}
          <Link {...page.link}>{page.label}</Link>
        </span>
      ))}
    </p>
  );
}
