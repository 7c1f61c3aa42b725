import { Table } from '@mantine/core';
import type { ComparisonView } from '../../../api/schema.gen';
import { Wide } from '../../../parts/Wide';

/** Who is in one list and not in the other, by name. */
export function Comparison({ what, compared }: { what: string; compared: ComparisonView | null }) {
  if (!compared || compared.missing.length + compared.extra.length === 0) return null;
  return (
    <>
      <h3>
        {compared.found} {what} found, {compared.expected} expected
      </h3>
      <Wide>
        <Table aria-label={`${what} found and expected`} verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Name</Table.Th>
              <Table.Th>Expected</Table.Th>
              <Table.Th>Found</Table.Th>
              <Table.Th>Why</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {compared.missing.map((one) => (
              <Table.Tr key={one.name}>
                <Table.Th scope="row">{one.name}</Table.Th>
                <Table.Td>yes</Table.Td>
                <Table.Td className="outcome-fail">no</Table.Td>
                <Table.Td>{one.why}</Table.Td>
              </Table.Tr>
            ))}
            {compared.extra.map((one) => (
              <Table.Tr key={one.name}>
                <Table.Th scope="row">{one.name}</Table.Th>
                <Table.Td className="outcome-mind">no</Table.Td>
                <Table.Td>yes</Table.Td>
                <Table.Td />
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
    </>
  );
}
