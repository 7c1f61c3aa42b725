import { Link } from '@tanstack/react-router';

/** Installs, one below the other, each with the way to its page. */
export function InstallLinks({ names }: { names: string[] }) {
  return names.map((name) => (
    <div key={name}>
      <Link className="nowrap" to="/installs/$name" params={{ name }}>
        {name}
      </Link>
    </div>
  ));
}
