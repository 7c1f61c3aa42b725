import { Table } from '@mantine/core';
import type { ReviewView } from '../../../api/schema.gen';
import { Balance } from '../../../parts/Balance';
import { Time } from '../../../parts/Time';
import { Wide } from '../../../parts/Wide';

/** Who looked before, at which fit. */
export function EarlierReviews({ reviews }: { reviews: ReviewView[] }) {
  if (reviews.length === 0) return <p className="empty">Nobody has reviewed it yet.</p>;
  return (
    <Wide>
      <Table aria-label="reviews" verticalSpacing={4}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>When</Table.Th>
            <Table.Th>Who</Table.Th>
            <Table.Th>At fit</Table.Th>
            <Table.Th>It said</Table.Th>
            <Table.Th>Left open</Table.Th>
            <Table.Th>Again by</Table.Th>
            <Table.Th>Remark</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {reviews.map((r) => (
            <Table.Tr key={r.number}>
              <Table.Td>
                <Time value={r.at} />
              </Table.Td>
              <Table.Td>
                {r.by}
                {r.writtenBy !== r.by && <span className="soft"> (entered by {r.writtenBy})</span>}
              </Table.Td>
              <Table.Td>{r.fit}</Table.Td>
              <Table.Td>
                <Balance counts={r.counts} />
              </Table.Td>
              <Table.Td>{r.off.filter((o) => !o.accepted).length}</Table.Td>
              <Table.Td>{r.nextBy ?? '–'}</Table.Td>
              <Table.Td>{r.remark ?? ''}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Wide>
  );
}
