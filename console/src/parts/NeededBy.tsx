import { Link } from '@tanstack/react-router';

/** The installs that need something of a place, each leading to its page. */
export function NeededBy({ installs }: { installs: string[] }) {
  if (installs.length === 0) return null;
  return (
    <>
      Needed by{' '}
      {installs.map((install, i) => (
        <span key={install}>
          {i > 0 && ', '}
          <Link to="/installs/$name" params={{ name: install }}>
            {install}
          </Link>
        </span>
      ))}
    </>
  );
}
