import { Button, Table } from '@mantine/core';
import { useState } from 'react';
import { Until } from '../../../parts/Time';
import { Verdict } from '../../../parts/Verdict';
import { AcceptForm } from './AcceptForm';
import type { Off } from './off';
import { Wide } from '../../../parts/Wide';

/** What is off now; each can be accepted, for a reason and until a day. */
export function OffTable({ install, off, mayAccept }: { install: string; off: Off[]; mayAccept: boolean }) {
  const [accepting, setAccepting] = useState<Off | null>(null);
  return (
    <section aria-label="deviations">
      <h2>What is off</h2>
      {off.length === 0 && <p className="empty">Nothing: every account holds just what it needs, as far as seen.</p>}
      {off.length > 0 && (
        <Wide>
          <Table aria-label="deviations" verticalSpacing={4}>
            <Table.Tbody>
              {off.map((o) => (
                <Table.Tr key={o.target}>
                  <Table.Td className="nowrap">
                    <Verdict verdict={o.verdict} />
                  </Table.Td>
                  <Table.Td>
                    <code>{o.account}</code>: {o.words}
                    <div className="soft">{o.reason}</div>
                  </Table.Td>
                  <Table.Td>
                    {o.accepted ? (
                      <>
                        accepted by {o.accepted.by} until <Until ends={o.accepted} />
                        <div className="soft">{o.accepted.why}</div>
                      </>
                    ) : (
                      <strong>open</strong>
                    )}
                  </Table.Td>
                  <Table.Td>
                    {!o.accepted && mayAccept && (
                      <Button
                        size="compact-sm"
                        variant="default"
                        aria-label={`Accept… ${o.account}: ${o.words}`}
                        onClick={() => setAccepting(o)}
                      >
                        Accept…
                      </Button>
                    )}
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </Wide>
      )}
      {accepting && <AcceptForm install={install} off={accepting} close={() => setAccepting(null)} />}
    </section>
  );
}
