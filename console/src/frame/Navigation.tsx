import { Link } from '@tanstack/react-router';
import { groups } from './pages';

/** The pages by groups, the current one marked. */
export function Navigation({ onGo }: { onGo: () => void }) {
  return (
    <nav aria-label="Pages" className="pages">
      {groups.map((group) => (
        <div key={group.name}>
          {group.name && <h2>{group.name}</h2>}
          {group.pages.map((page) => (
            <Link
              key={page.label}
              {...page.link}
              activeOptions={{ exact: page.link.to === '/' }}
              activeProps={{ className: 'here' }}
              onClick={onGo}
            >
              {page.label}
            </Link>
          ))}
        </div>
      ))}
    </nav>
  );
}
