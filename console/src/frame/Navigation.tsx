import { Link, useLocation } from '@tanstack/react-router';
import { groups, placeOf } from './pages';

/** The pages by groups, the current one marked. */
export function Navigation({ onGo }: { onGo: () => void }) {
  const here = placeOf(useLocation({ select: (location) => location.pathname }));
  return (
    <nav aria-label="Pages" className="pages">
      {groups.map((group) => (
        <div key={group.name}>
          {group.name && <h2>{group.name}</h2>}
          {group.pages.map((page) => (
            <Link
              key={page.label}
              {...page.link}
              activeProps={{}}
              className={here === page.link.to ? 'here' : ''}
              aria-current={here === page.link.to ? 'page' : undefined}
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
