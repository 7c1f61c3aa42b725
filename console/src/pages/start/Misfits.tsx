import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { fitting, worst } from '../../api/queries';
import type { InstallSummary } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { Wide } from '../../parts/Wide';

const isOff = ({ fit }: InstallSummary) => !fit || fit.missing + fit.excess + fit.forbidden + fit.unseen > 0;

/** The installs that do not fit, the worst first. */
export function Misfits() {
  const installs = useQuery(worst);
  const right = useQuery(fitting);
  if (installs.isPending) return <Loading />;
  if (installs.error) return <Failure error={installs.error} />;
  const off = installs.data.items.filter(isOff);
  const total = installs.data.total;
  if (total === 0)
    return (
      <p className="empty">
        There is no install yet. Begin with <Link to="/new-sheet">a sheet</Link> of what a product needs,{' '}
        <Link to="/estates">your estate</Link>, and <Link to="/new-install">an install</Link> of the one in the other.
      </p>
    );
  return (
    <section aria-label="Installs that do not fit">
      <h2>
        Installs that do not fit{' '}
        {right.data && (
          <span className="soft">
            {right.data.total} of {total} have nothing off
          </span>
        )}
      </h2>
      {off.length === 0 ? (
        <p className="empty">Every install that was verified is just right.</p>
      ) : (
        <Wide>
          <Table aria-label="Installs that do not fit" verticalSpacing={4} highlightOnHover>
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Install</Table.Th>
                <Table.Th>Stage</Table.Th>
                <Table.Th>Does it fit?</Table.Th>
                <Table.Th>What is next</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {off.map((i) => (
                <Table.Tr key={i.name}>
                  <Table.Td className="nowrap">
                    <Link to="/installs/$name" params={{ name: i.name }}>
                      {i.name}
                    </Link>
                  </Table.Td>
                  <Table.Td className="soft">{i.stage}</Table.Td>
                  <Table.Td>
                    {i.fit ? <Balance counts={i.fit} /> : <span className="soft">not verified yet</span>}
                  </Table.Td>
                  <Table.Td>{i.next}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </Wide>
      )}
      {total > installs.data.items.length && <Link to="/installs">All {total} installs</Link>}
    </section>
  );
}
