import { Table } from '@mantine/core';
import type { RenewalStepView } from '../../api/schema.gen';
import { Wide } from '../../parts/Wide';

/** The steps of a renewal before it begins, each with why it stands where it does. */
export function Order({ steps }: { steps: RenewalStepView[] }) {
  return (
    <Wide>
      <Table className="steps" aria-label="order of a renewal" verticalSpacing={4}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th className="number">#</Table.Th>
            <Table.Th>Step</Table.Th>
            <Table.Th>By</Table.Th>
            <Table.Th>Why here</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {steps.map((s) => (
            <Table.Tr key={s.number}>
              <Table.Td className="number">{s.number}</Table.Td>
              <Table.Td>{s.words}</Table.Td>
              <Table.Td>{s.act === 'type' ? 'a person' : 'us'}</Table.Td>
              <Table.Td className="soft">{s.why}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Wide>
  );
}
