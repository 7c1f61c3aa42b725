import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { plan as planQuery } from '../../api/queries';
import type { PlannedAccountView, PlanView } from '../../api/schema.gen';
import { Dn } from '../../parts/Dn';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { alike } from './alike';
import { Choices } from './Choices';
import { Wide } from '../../parts/Wide';

/** What is needed, before anything is read: accounts, groups and rights, each with its line of the sheet. */
export function PlanTab({ name }: { name: string }) {
  const plan = useQuery(planQuery(name));
  if (plan.isPending) return <Loading />;
  if (plan.error) return <Failure error={plan.error} />;
  const of = plan.data;
  return (
    <>
      {of.notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      <Choices install={name} decisions={of.decisions} />
      {of.accounts.map((account) => (
        <AccountNeeds key={account.key} account={account} plan={of} />
      ))}
      {of.groups.length > 0 && (
        <section aria-label="Groups">
          <h2>Groups</h2>
          <Wide>
            <Table verticalSpacing={4} aria-label="Groups">
              <Table.Thead>
                <Table.Tr>
                  <Table.Th>Group</Table.Th>
                  <Table.Th>For</Table.Th>
                  <Table.Th>Members</Table.Th>
                  <Table.Th>Asked for at</Table.Th>
                </Table.Tr>
              </Table.Thead>
              <Table.Tbody>
                {of.groups.map((group) => (
                  <Table.Tr key={group.key}>
                    <Table.Td className="nowrap">{group.name}</Table.Td>
                    <Table.Td>{group.purpose}</Table.Td>
                    <Table.Td>{group.members.join(', ')}</Table.Td>
                    <Table.Td className="soft">{group.at}</Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
          </Wide>
        </section>
      )}
    </>
  );
}

function AccountNeeds({ account, plan }: { account: PlannedAccountView; plan: PlanView }) {
  const needs = alike(plan.grants.filter((g) => g.account === account.key));
  return (
    <section aria-label={account.key}>
      <div className="head">
        <h2>{account.key}</h2>
        <code>{account.name}</code>
        <span className="soft">{account.purpose}</span>
        <span className="soft">{account.existing ? 'existing account' : account.dn && <Dn value={account.dn} />}</span>
      </div>
      <Wide>
        <Table verticalSpacing={4} aria-label={`What ${account.key} needs`}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Right</Table.Th>
              <Table.Th>Where</Table.Th>
              <Table.Th>Given by</Table.Th>
              <Table.Th>Why</Table.Th>
              <Table.Th>Asked for at</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {needs.map(({ first, places }) => (
              <Table.Tr key={first.id}>
                <Table.Td>
                  {first.right}
                  {first.through && <span className="soft"> through {first.through}</span>}
                </Table.Td>
                <Table.Td>
                  {places.length > 3 ? (
                    <details>
                      <summary>{places.length} places</summary>
                      {places.join(', ')}
                    </details>
                  ) : (
                    places.join(', ')
                  )}
                </Table.Td>
                <Table.Td className="nowrap">
                  {first.givenBy === 'setup' ? 'setup' : `the ${first.team} team`}
                  {first.until === 'installed' && ', until installed'}
                </Table.Td>
                <Table.Td>{first.why}</Table.Td>
                <Table.Td className="soft nowrap">{first.at}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
    </section>
  );
}
