import { useQuery } from '@tanstack/react-query';
import { me } from '../api/queries';
import type { WhoView } from '../api/schema.gen';
import { Loading } from './Loading';
import { PageTitle } from './PageTitle';
import { useMay } from './useMay';

interface Props {
  role: WhoView['role'];
  title: string;
  children: React.ReactNode;
}

/** A page that only some may see: to others it says whose it is, and what they are. */
export function OnlyFor({ role, title, children }: Props) {
  const who = useQuery(me);
  const may = useMay(role);
  if (may) return children;
  return (
    <>
      <div className="head">
        <PageTitle>{title}</PageTitle>
      </div>
      {who.data ? (
        <p className="empty">
          This page needs the {role} role. You are {who.data.name}, a {who.data.role}; an owner gives roles.
        </p>
      ) : (
        <Loading />
      )}
    </>
  );
}
