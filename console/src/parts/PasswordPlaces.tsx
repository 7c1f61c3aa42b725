import { Button, Table } from '@mantine/core';
import type { PasswordPlaceView } from '../api/schema.gen';
import { Time } from './Time';
import { Wide } from './Wide';

/** Where an account's password is typed, and what stops when it is changed in the directory first. */
export function PasswordPlaces({
  places,
  remove,
}: {
  places: PasswordPlaceView[];
  /** Removes a place that somebody told of, by its number; null for who may not. */
  remove: ((told: number) => void) | null;
}) {
  const first = places[0];
  if (!first) return null;
  return (
    <section aria-label="where the password is used">
      <h2>Where its password is used</h2>
      <p className="soft">
        The password of <code>{first.account}</code>. A renewal must change it in each of these places.
      </p>
      <Wide>
        <Table aria-label="where the password is used" verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Product</Table.Th>
              <Table.Th>Host</Table.Th>
              <Table.Th>Where</Table.Th>
              <Table.Th>Setting</Table.Th>
              <Table.Th>If changed in the directory first</Table.Th>
              <Table.Th>Last changed here</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {places.map((place) => (
              <Table.Tr key={place.kind + place.host + place.where + place.setting}>
                <Table.Td>{place.product || (place.kind === 'own-secret' ? 'Just Right' : '–')}</Table.Td>
                <Table.Td>{place.host}</Table.Td>
                <Table.Td>{place.where}</Table.Td>
                <Table.Td>
                  <code>{place.setting}</code>
                </Table.Td>
                <Table.Td>
                  {place.breaks}
                  {place.reference && `; it refers to ${place.reference}`}
                  {place.notSeen && <div className="soft">not seen: {place.notSeen}</div>}
                  {place.note && <strong> {place.note}</strong>}
                </Table.Td>
                <Table.Td>
                  {place.lastAt ? (
                    <>
                      <Time value={place.lastAt} /> by {place.lastBy}
                    </>
                  ) : (
                    <span className="soft">–</span>
                  )}
                  {place.told !== null && remove && (
                    <>
                      {' '}
                      <Button size="compact-xs" variant="default" onClick={() => remove(place.told ?? 0)}>
                        Not here any more
                      </Button>
                    </>
                  )}
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
    </section>
  );
}
