import { Table } from '@mantine/core';
import { Link } from '@tanstack/react-router';
import type { FoundPage, FoundView } from '../../api/schema.gen';
import { Time } from '../../parts/Time';
import { Wide } from '../../parts/Wide';

/** What was found, kind by kind, each with the way to its page where it has one. */
export function FoundTable({ found, words }: { found: FoundPage; words: string }) {
  if (found.items.length === 0) return <p className="empty">Nothing contains “{words}”.</p>;
  const more = found.counts.filter((c) => c.total === null || c.total > shownOf(found, c.kind));
  return (
    <>
      <Wide>
        <Table aria-label="Found" verticalSpacing="xs" highlightOnHover>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Kind</Table.Th>
              <Table.Th>Name</Table.Th>
              <Table.Th>What</Table.Th>
              <Table.Th>When</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {found.items.map((one) => (
              <Table.Tr key={`${one.kind} ${one.estate} ${one.name}`}>
                <Table.Td className="soft">{one.kind}</Table.Td>
                <Table.Td>
                  <Way one={one} />
                </Table.Td>
                <Table.Td>{one.words}</Table.Td>
                <Table.Td>{one.at && <Time value={one.at} />}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
      {more.length > 0 && (
        <p className="soft" role="status">
          Not all of it: {more.map((c) => `${c.total ?? 'very many'} of ${c.kind}`).join(', ')}.
        </p>
      )}
    </>
  );
}

const shownOf = (found: FoundPage, kind: string) => found.items.filter((i) => i.kind === kind).length;

function Way({ one }: { one: FoundView }) {
  switch (one.kind) {
    case 'install':
      return (
        <Link to="/installs/$name" params={{ name: one.name }}>
          {one.name}
        </Link>
      );
    case 'host':
      return (
        <Link to="/estates/$estate/hosts/$host" params={{ estate: one.estate, host: one.name }}>
          {one.name}
        </Link>
      );
    case 'instance':
      return (
        <Link to="/estates/$estate/instances/$instance" params={{ estate: one.estate, instance: one.name }}>
          {one.name}
        </Link>
      );
    case 'run':
      return (
        <Link to="/runs/$id" params={{ id: one.name }}>
          {one.name}
        </Link>
      );
    case 'log':
      return <Link to="/log">{`entry ${one.name}`}</Link>;
    case 'sheet':
      return (
        <Link to="/sheets/$name" params={{ name: one.name }}>
          {one.name}
        </Link>
      );
    case 'estate':
      return (
        <Link to="/estates/$estate" params={{ estate: one.name }}>
          {one.name}
        </Link>
      );
    case 'account':
      return (
        <Link to="/passwords/$estate/$account" params={{ estate: one.estate, account: one.name }}>
          {one.name}
        </Link>
      );
    case 'group':
      return (
        <Link to="/groups" search={{ estate: one.estate }}>
          {one.name}
        </Link>
      );
  }
}
