import { Link, useLocation } from '@tanstack/react-router';
import { PageTitle } from '../parts/PageTitle';

/** An address that is none of ours. */
export function NotFound() {
  const { pathname } = useLocation();
  return (
    <>
      <PageTitle>No such page</PageTitle>
      <p>
        There is no page <code>{pathname}</code>. Look for it with the search above, or begin with{' '}
        <Link to="/">what needs you</Link>.
      </p>
    </>
  );
}
