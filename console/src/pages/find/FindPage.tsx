import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { search as searchQuery } from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { type PageLink, pagesNamed } from '../../frame/pages';
import { FoundTable } from './FoundTable';
import { PageTitle } from '../../parts/PageTitle';

const route = getRouteApi('/frame/find');

/** One search over everything; what is looked for stands in the address, so that it can be passed on. */
export function FindPage() {
  const { words = '' } = route.useSearch();
  const [asked] = useDebouncedValue(words.trim(), 250);
  const found = useQuery({ ...searchQuery(asked), enabled: asked !== '' });
  return (
    <>
      <div className="head">
        <PageTitle>Find</PageTitle>
        <span className="soft">
          In installs, sheets, estates, hosts, instances, accounts, groups, runs and the log.
        </span>
      </div>
      {asked === '' && <p className="empty">Type words into the search above; each must be contained.</p>}
      <div id="found">
        <FoundPages pages={pagesNamed(asked)} />
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
