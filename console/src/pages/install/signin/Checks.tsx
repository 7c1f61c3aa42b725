import { Table } from '@mantine/core';
import type { SignInCheckView } from '../../../api/schema.gen';
import { Wide } from '../../../parts/Wide';

const signs: Record<SignInCheckView['verdict'], string> = { pass: '✓', fail: '✗', unseen: '?', caution: '!' };

/** The checks of a sign-in test, each with its fact and what would fix it. */
export function Checks({ checks }: { checks: SignInCheckView[] }) {
  return (
    <Wide>
      <Table aria-label="checks" verticalSpacing={4}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Outcome</Table.Th>
            <Table.Th>Check</Table.Th>
            <Table.Th>Found</Table.Th>
            <Table.Th>Seconds</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {checks.map((check) => (
            <Table.Tr key={check.id}>
              <Table.Td className={`outcome outcome-${check.verdict}`}>
                <span aria-hidden="true">{signs[check.verdict]}</span> {check.verdict}
              </Table.Td>
              <Table.Td>{check.asks}</Table.Td>
              <Table.Td className="setting-value">
                {check.fact}
                {check.fix && <div className="soft">{check.fix}</div>}
              </Table.Td>
              <Table.Td className="soft">{check.seconds == null ? '' : check.seconds.toFixed(2)}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Wide>
  );
}
