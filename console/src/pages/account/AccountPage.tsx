import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { fit as fitQuery, passwordPlaces } from '../../api/queries';
import { Balance } from '../../parts/Balance';
import { Dn } from '../../parts/Dn';
import { Failure } from '../../parts/Failure';
import { PasswordPlaces } from '../../parts/PasswordPlaces';
import { PathLine } from '../../parts/PathLine';
import { Verdict } from '../../parts/Verdict';
import { PathPicture } from './PathPicture';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { Simulated } from '../../parts/Simulated';
import { Wide } from '../../parts/Wide';

const route = getRouteApi('/frame/installs/$name/accounts/$account');

/** One account: by which paths does it hold what it holds? */
export function AccountPage() {
  const { name, account: key } = route.useParams();
  const fit = useQuery(fitQuery(name));
  const logonName = fit.data?.accounts.find((a) => a.key === key)?.name ?? '';
  const places = useQuery({
    ...passwordPlaces(fit.data?.estate ?? '', logonName),
    enabled: fit.data !== undefined && logonName !== '',
  });
  if (!fit.data) return <PageWithout title={key} error={fit.error} />;
  const account = fit.data.accounts.find((a) => a.key === key);
  if (!account) return <p className="empty">{`${name} has no account called ${key}.`}</p>;
  const held = account.rights.filter((r) => r.paths.length > 0);
  const others = account.rights.filter((r) => r.paths.length === 0);
  return (
    <>
      <div className="head">
        <PageTitle>{account.key}</PageTitle>
        <code>{account.name}</code>
        <Simulated of={fit.data.simulated} />
        <span className="grow" />
        <Link to="/installs/$name" params={{ name }}>
          {name}
        </Link>
      </div>
      <p className="soft">{account.purpose}</p>
      {account.dn && (
        <p>
          <Dn value={account.dn} />
        </p>
      )}
      <Balance counts={account.counts} large />
      <h2>Its rights and their paths</h2>
      {held.length === 0 ? <p className="empty">It holds nothing, as far as seen.</p> : <PathPicture rights={held} />}
      <Wide>
        <Table mt="md" aria-label="Paths" verticalSpacing="xs">
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Verdict</Table.Th>
              <Table.Th>Right</Table.Th>
              <Table.Th>Place</Table.Th>
              <Table.Th>Why, and by which path</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {[...held, ...others].map((right) => (
              <Table.Tr key={right.id}>
                <Table.Td>
                  <Verdict verdict={right.verdict} />
                </Table.Td>
                <Table.Td>{right.right}</Table.Td>
                <Table.Td>{right.place}</Table.Td>
                <Table.Td>
                  {right.reason}
                  {right.paths.map((path, i) => (
                    <PathLine key={i} path={path} />
                  ))}
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
      {places.error && <Failure error={places.error} />}
      {places.data && <PasswordPlaces places={places.data} remove={null} />}
    </>
  );
}
