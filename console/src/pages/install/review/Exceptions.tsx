import { Button, Table } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, need } from '../../../api/client';
import { exceptions as exceptionsQuery } from '../../../api/queries';
import { Due } from '../../../parts/Due';
import { Failure } from '../../../parts/Failure';
import { Wide } from '../../../parts/Wide';

/** Every exception there was, with what has ended. */
export function Exceptions({ install, mayEnd }: { install: string; mayEnd: boolean }) {
  const cache = useQueryClient();
  const list = useQuery(exceptionsQuery(install));
  const end = useMutation({
    mutationFn: (number: number) =>
      need(api.POST('/api/installs/{name}/exceptions/{number}/end', { params: { path: { name: install, number } } })),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['install', install] }),
  });
  if (!list.data || list.data.length === 0) return list.error ? <Failure error={list.error} /> : null;
  return (
    <section aria-label="exceptions">
      <h2>Exceptions</h2>
      <Wide>
        <Table aria-label="exceptions" verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Until</Table.Th>
              <Table.Th>What</Table.Th>
              <Table.Th>Accepted by</Table.Th>
              <Table.Th>Because</Table.Th>
              <Table.Th>Counts</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {list.data.map((e) => (
              <Table.Tr key={e.number} className={e.stands ? '' : 'soft'}>
                <Table.Td>
                  <Due value={e.until} day={e.lastDay ?? null} />
                </Table.Td>
                <Table.Td>{e.words}</Table.Td>
                <Table.Td>
                  {e.by}
                  {e.writtenBy !== e.by && <span className="soft"> (entered by {e.writtenBy})</span>}
                </Table.Td>
                <Table.Td>{e.why}</Table.Td>
                <Table.Td className="nowrap">
                  {!e.stands && (e.endedBy ? `ended by ${e.endedBy}` : 'ended')}
                  {e.stands && mayEnd && (
                    <Button
                      size="compact-sm"
                      variant="subtle"
                      aria-label={`End it now: ${e.words}`}
                      loading={end.isPending && end.variables === e.number}
                      onClick={() => end.mutate(e.number)}
                    >
                      End it now
                    </Button>
                  )}
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
      {end.error && <Failure error={end.error} />}
    </section>
  );
}
