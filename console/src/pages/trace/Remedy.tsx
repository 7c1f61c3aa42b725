import { Button, Table } from '@mantine/core';
import type { RemedyView, RightFlowView } from '../../api/schema.gen';
import { Dn } from '../../parts/Dn';
import { diffLines } from './diffLines';
import { Wide } from '../../parts/Wide';

interface Props {
  remedy: RemedyView;
  /** The trace that offers it. */
  trace: string;
  may: boolean;
  onFix: () => void;
}

/** A remedy, and what it would change for everybody: rights that flow in or go, and the lists before and after. */
export function Remedy({ remedy, trace, may, onFix }: Props) {
  const flows = [...remedy.gained.map((f) => ({ sign: '+', ...f })), ...remedy.lost.map((f) => ({ sign: '−', ...f }))];
  return (
    <section className="remedy" aria-label={`Remedy ${remedy.id}`}>
      <div className="head">
        <h3>{remedy.title}</h3>
        <span className="grow" />
        <Button
          size="compact-sm"
          variant="subtle"
          component="a"
          href={`/api/jobs/${encodeURIComponent(trace)}/remedies/${encodeURIComponent(remedy.id)}/ldif`}
          download={`${remedy.id}.ldif`}
        >
          As LDIF
        </Button>
        <Button size="compact-sm" variant="default" disabled={!may} onClick={onFix}>
          Carry out…
        </Button>
      </div>
      <p>
        {remedy.fixed} of {remedy.fixed + remedy.stillFailing} fixed. {remedy.touched} access{' '}
        {remedy.touched === 1 ? 'list changes' : 'lists change'}; for everybody:
      </p>
      <Wide>
        <Table aria-label={`Rights that change by ${remedy.id}`} verticalSpacing={2} fz="sm">
          <Table.Thead>
            <Table.Tr>
              <Table.Th w={24}>
                <span className="only-read">change</span>
              </Table.Th>
              <Table.Th>who</Table.Th>
              <Table.Th>may</Table.Th>
              <Table.Th ta="right">objects</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {flows.map((flow) => (
              <Table.Tr key={flow.sign + flow.who + flow.what + String(flow.denies)}>
                <Table.Td>
                  <strong>{flow.sign}</strong>
                </Table.Td>
                <Table.Td>
                  <code>{flow.who}</code>
                </Table.Td>
                <Table.Td>{words(flow)}</Table.Td>
                <Table.Td ta="right">{flow.objects}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
      {flows.length === 0 && <p className="empty">No right changes.</p>}
      {remedy.lists.map((list) => (
        <details key={list.dn}>
          <summary>ACL before and after</summary>
          <Dn value={list.dn} />
          <ul className="diff">
            {diffLines(list.before, list.after).map((line, i) => (
              <li key={i} className={line.sign === ' ' ? 'soft' : undefined}>
                <span role="img" aria-label={line.sign === '+' ? 'comes' : line.sign === '-' ? 'goes' : 'stays'}>
                  {line.sign === '-' ? '−' : line.sign}
                </span>
                <code>{line.text}</code>
              </li>
            ))}
          </ul>
        </details>
      ))}
      <details>
        <summary>
          {remedy.touched} {remedy.touched === 1 ? 'object' : 'objects'} touched
        </summary>
        <ul className="objects">
          {remedy.touchedObjects.map((dn) => (
            <li key={dn}>
              <Dn value={dn} />
            </li>
          ))}
          {remedy.touched > remedy.touchedObjects.length && (
            <li>and {remedy.touched - remedy.touchedObjects.length} more</li>
          )}
        </ul>
      </details>
    </section>
  );
}

const words = (flow: RightFlowView) => (flow.denies ? `not ${flow.what}` : flow.what);
