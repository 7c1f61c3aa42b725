import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { policy as policyQuery } from '../../api/estateQueries';
import type { PolicyGroupRuleView, PolicyHostView, PolicyRightView, PolicyView } from '../../api/schema.gen';
import { Dn } from '../../parts/Dn';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { Simulated } from '../../parts/Simulated';
import { Time } from '../../parts/Time';
import { Wide } from '../../parts/Wide';

const route = getRouteApi('/frame/estates/$estate/policies/$policy');

/** What becomes of a policy on a host, in words. */
const fates: Record<PolicyHostView['fate'], string> = {
  applies: 'applies',
  unseen: '○ unseen',
  'link-disabled': 'link disabled',
  blocked: 'blocked',
  gone: 'gone',
  'half-disabled': 'computer half disabled',
  filtered: 'filtered',
};

/** What a rule does, in words. */
const acts: Record<PolicyGroupRuleView['act'], string> = {
  members: 'has just these members:',
  'member-of': 'is put into',
  create: 'is made, with',
  update: 'gets',
  replace: 'is made anew, with',
  delete: 'is deleted',
};

/** One policy: what does it set, and on which hosts does that count? */
export function PolicyPage() {
  const { estate, policy: id } = route.useParams();
  const policy = useQuery(policyQuery(estate, id));
  if (!policy.data) return <PageWithout title={id} error={policy.error} />;
  const { data } = policy;
  return (
    <>
      <div className="head">
        <PageTitle>{data.name}</PageTitle>
        <code className="soft">{data.id}</code>
        <Simulated of={data.simulated} />
        <span className="grow" />
        <span className="soft">
          read <Time value={data.readAt} />
        </span>
      </div>
      {data.halfDisabled && <p>Its computer half is disabled: it sets nothing on hosts.</p>}
      {data.queryFilter && <p>It counts only on hosts that pass its query {data.queryFilter}.</p>}
      <h2>Rights that it sets</h2>
      {data.rightsUnread && <p>○ Unseen: {data.rightsUnread}</p>}
      {data.rights.length === 0 && !data.rightsUnread && <p className="empty">It sets no log-on right or privilege.</p>}
      {data.rights.length > 0 && <Rights estate={estate} rights={data.rights} />}
      {(data.groupRules.length > 0 || data.groupsUnread) && <h2>Local groups</h2>}
      {data.groupsUnread && <p>○ Unseen: {data.groupsUnread}</p>}
      <ul>
        {data.groupRules.map((rule, i) => (
          <li key={i}>
            <b>{rule.name}</b> {acts[rule.act]} {rule.entries.join(', ')}
            {rule.removed.length > 0 && `; ${rule.removed.join(', ')} goes`}
            {rule.targeted && ' (on some hosts only: the host itself decides)'}
          </li>
        ))}
      </ul>
      <Reach estate={estate} policy={data} />
    </>
  );
}

function Rights({ estate, rights }: { estate: string; rights: PolicyRightView[] }) {
  return (
    <Wide>
      <Table aria-label="Rights" verticalSpacing={4}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Right</Table.Th>
            <Table.Th>Its whole list</Table.Th>
            <Table.Th>Counts on</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {rights.map((right) => (
            <Table.Tr key={right.constant}>
              <Table.Td>
                {right.denies ? <b>{right.words}</b> : right.words}
                <br />
                <code className="soft">{right.constant}</code>
              </Table.Td>
              <Table.Td>{right.holders.join(', ') || <span className="soft">nobody</span>}</Table.Td>
              <Table.Td>
                <Hosts estate={estate} names={right.decidesOn} />
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Wide>
  );
}

function Hosts({ estate, names }: { estate: string; names: string[] }) {
  if (names.length === 0) return <span className="soft">no host of the estate</span>;
  return names.map((host, i) => (
    <span key={host}>
      {i > 0 && ', '}
      <Link to="/estates/$estate/hosts/$host" params={{ estate, host }}>
        {host}
      </Link>
    </span>
  ));
}

/** Where it is linked, and what becomes of it on each host below. */
function Reach({ estate, policy }: { estate: string; policy: PolicyView }) {
  return (
    <>
      <h2>Where it is linked</h2>
      {policy.links.length === 0 && <p className="empty">Nowhere: it governs no host.</p>}
      {policy.links.map((link) => (
        <div key={link.dn}>
          <Dn value={link.dn} />{' '}
          <span className="soft">
            link number {link.number}
            {link.enforced && ', enforced'}
            {link.disabled && ', disabled'}
          </span>
        </div>
      ))}
      <h2>Hosts below</h2>
      {policy.hosts.length === 0 && <p className="empty">No host of the estate lies below its links.</p>}
      {policy.hosts.map((host) => (
        <div key={host.host}>
          <Hosts estate={estate} names={[host.host]} /> {fates[host.fate]}
          {host.fate !== 'applies' && <span className="soft">: {host.why}</span>}
        </div>
      ))}
    </>
  );
}
