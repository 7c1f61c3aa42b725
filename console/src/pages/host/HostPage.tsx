import { Tabs } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi } from '@tanstack/react-router';
import { host as hostQuery } from '../../api/queries';
import { NeededBy } from '../../parts/NeededBy';
import { Time } from '../../parts/Time';
import { UnreadParts } from '../../parts/UnreadParts';
import { GroupTable } from './GroupTable';
import { PolicyTable } from './PolicyTable';
import { RightTable } from './RightTable';
import { RunnerTable } from './RunnerTable';
import { ServicePicture } from './ServicePicture';
import { ServiceTable } from './ServiceTable';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { Simulated } from '../../parts/Simulated';

const route = getRouteApi('/frame/estates/$estate/hosts/$host');

/** One host: who may do what here and where that comes from, who is in which group, and what starts before what. */
export function HostPage() {
  const { estate, host: name } = route.useParams();
  const host = useQuery(hostQuery(estate, name));
  if (!host.data) return <PageWithout title={name} error={host.error} />;
  const { data } = host;
  return (
    <>
      <div className="head">
        <PageTitle>{data.name}</PageTitle>
        <span className="soft">
          {data.role === 'controller' ? 'domain controller' : data.role === 'member' ? 'member server' : 'in no domain'}
          {data.system && `, ${data.system}`}
        </span>
        <Simulated of={data.simulated} />
        <span className="grow" />
        <span className="soft">
          read <Time value={data.readAt} />
          {data.readBy && ` by ${data.readBy}`}, reach: {data.reach}
        </span>
      </div>
      <p className="soft">
        <NeededBy installs={data.installs} />
      </p>
      <UnreadParts unread={data.unread} parts={data.unreadParts} />
      {!data.unread && (
        <Tabs defaultValue="rights" color="gray" keepMounted={false}>
          <Tabs.List mb="md">
            <Tabs.Tab value="rights">Rights</Tabs.Tab>
            <Tabs.Tab value="services">Services</Tabs.Tab>
            <Tabs.Tab value="runners">Tasks and pools</Tabs.Tab>
            <Tabs.Tab value="groups">Local groups</Tabs.Tab>
            <Tabs.Tab value="policies">Policies</Tabs.Tab>
          </Tabs.List>
          <Tabs.Panel value="rights">
            <RightTable rights={data.rights} />
          </Tabs.Panel>
          <Tabs.Panel value="services">
            <ServicePicture services={data.services} />
            <ServiceTable services={data.services} />
          </Tabs.Panel>
          <Tabs.Panel value="runners">
            <RunnerTable runners={data.runners} />
          </Tabs.Panel>
          <Tabs.Panel value="groups">
            <GroupTable groups={data.groups} controller={data.role === 'controller'} />
          </Tabs.Panel>
          <Tabs.Panel value="policies">
            <PolicyTable estate={estate} policies={data.policies} unseen={data.policiesUnseen} />
          </Tabs.Panel>
        </Tabs>
      )}
    </>
  );
}
