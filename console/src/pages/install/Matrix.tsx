import { Drawer } from '@mantine/core';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import type { FitView } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { countsOf } from '../../parts/strokes';
import { PersonsWord } from './PersonsWord';
import { RightChip } from './RightChip';
import { RightFacts } from './RightFacts';
import { moveFocus } from './moveFocus';

/** Accounts as rows, places as columns, rights with their verdicts in the cells. */
export function Matrix({ fit }: { fit: FitView }) {
  const [selectedId, setSelected] = useState<string | null>(null);
  const selected = fit.accounts.flatMap((a) => a.rights).find((r) => r.id === selectedId) ?? null;
  const rightsAt = (place: string) => fit.accounts.flatMap((a) => a.rights.filter((r) => r.group === place));
  return (
    <>
      <div className="matrix-frame" tabIndex={-1}>
        <table className="matrix" aria-label="Accounts and places" onKeyDown={moveFocus}>
          <thead>
            <tr>
              <th scope="col">account</th>
              {fit.places.map((place) => (
                <th scope="col" key={place}>
                  {place}
                  <br />
                  <Balance counts={countsOf(rightsAt(place).map((r) => r.verdict))} quiet />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {fit.accounts.map((account) => (
              <tr key={account.key}>
                <th scope="row">
                  <Link to="/installs/$name/accounts/$account" params={{ name: fit.install, account: account.key }}>
                    {account.key}
                  </Link>{' '}
                  <code>{account.name}</code>
                  <div className="purpose">{account.purpose}</div>
                  <Balance counts={account.counts} quiet />
                </th>
                {fit.places.map((place) => (
                  <td key={place}>
                    {account.rights
                      .filter((r) => r.group === place)
                      .map((right) => (
                        <RightChip
                          key={right.id}
                          right={right}
                          place={place}
                          quiet={selected !== null}
                          onSelect={() => setSelected(right.id)}
                        />
                      ))}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Drawer
        opened={selected !== null}
        onClose={() => setSelected(null)}
        position="right"
        size="lg"
        title={selected ? `${selected.right} on ${selected.place}` : ''}
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        {selected && <RightFacts right={selected} estate={fit.estate} />}
        {selected?.product && (
          <PersonsWord install={fit.install} account={selected.account} product={selected.product} title={fit.title} />
        )}
      </Drawer>
    </>
  );
}
