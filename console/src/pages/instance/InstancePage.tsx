import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { instance as instanceQuery } from '../../api/queries';
import { NeededBy } from '../../parts/NeededBy';
import { Time } from '../../parts/Time';
import { UnreadParts } from '../../parts/UnreadParts';
import { engineNames } from './engineNames';
import { HolderTable } from './HolderTable';
import { WayTable } from './WayTable';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { Simulated } from '../../parts/Simulated';

const route = getRouteApi('/frame/estates/$estate/instances/$instance');

/** One database instance: who can do what there and in its databases, by which path, and which of it is needed. */
export function InstancePage() {
  const { estate, instance: name } = route.useParams();
  const instance = useQuery(instanceQuery(estate, name));
  if (!instance.data) return <PageWithout title={name} error={instance.error} />;
  const { data } = instance;
  return (
    <>
      <div className="head">
        <PageTitle>{data.name}</PageTitle>
        <span className="soft">
          {engineNames[data.engine]}
          {data.release && `, release ${data.release}`}, on{' '}
          <Link to="/estates/$estate/hosts/$host" params={{ estate, host: data.host }}>
            {data.host}
          </Link>
        </span>
        <Simulated of={data.simulated} />
        <span className="grow" />
        <span className="soft">
          read <Time value={data.readAt} />
          {data.readBy && ` by ${data.readBy}`}, reach: {data.reach}
        </span>
      </div>
      <p className="soft">
        {data.databases.length > 0 && <>Databases: {data.databases.join(', ')}. </>}
        {data.partners.length > 0 && (
          <>
            Takes over from, and is taken over by:{' '}
            {data.partners.map((partner, i) => (
              <span key={partner}>
                {i > 0 && ', '}
                <Link to="/estates/$estate/instances/$instance" params={{ estate, instance: partner }}>
                  {partner}
                </Link>
              </span>
            ))}
            .{' '}
          </>
        )}
        <NeededBy installs={data.installs} />
      </p>
      <UnreadParts unread={data.unread} parts={data.unreadParts} />
      {!data.unread && <HolderTable estate={estate} instance={name} />}
      {!data.unread && <WayTable ways={data.ways} more={data.moreWays} />}
      {data.waysUnread && (
        <p className="soft">Ways to more may be missing here, since this was not read: {data.waysUnread}</p>
      )}
    </>
  );
}
