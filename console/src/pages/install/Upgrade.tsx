import { Button, NativeSelect, Table } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { sheets as sheetsQuery } from '../../api/libraryQueries';
import type { NeedDifferenceView, UpgradeView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { type Said, Question } from '../library/Question';
import { Wide } from '../../parts/Wide';
import { useMay } from '../../parts/useMay';

const heads: Record<NeedDifferenceView['change'], string> = {
  anew: 'Needed anew',
  differently: 'Needed differently',
  'no-more': 'Needed no more',
};

/** The way to another release of the product: what it needs otherwise is seen before anything moves. */
export function Upgrade({ name, sheet }: { name: string; sheet: string }) {
  const queries = useQueryClient();
  const may = useMay('planner');
  const sheets = useQuery(sheetsQuery);
  const product = sheet.replace(/@.*/, '');
  const others = sheets.data?.filter((s) => s.product === product && s.name !== sheet).map((s) => s.name) ?? [];
  const [to, setTo] = useState<string | null>(null);
  const [said, setSaid] = useState<Said>({});
  const chosen = to ?? others[0] ?? '';
  const order = { params: { path: { name } }, body: { to: chosen, file: null, text: null, said } };
  const tell = useMutation({ mutationFn: () => need(api.POST('/api/installs/{name}/upgrading', order)) });
  const move = useMutation({
    mutationFn: () => need(api.POST('/api/installs/{name}/upgrade', order)),
    onSuccess: () => {
      tell.reset();
      setSaid({});
      setTo(null);
      return queries.invalidateQueries();
    },
  });
  if (others.length === 0) return null;
  const would = tell.data;
  return (
    <section aria-label="Another release">
      <h2>Another release</h2>
      <div className="head">
        <NativeSelect
          aria-label="Release"
          data={others}
          value={chosen}
          onChange={(e) => {
            setTo(e.currentTarget.value);
            tell.reset();
          }}
        />
        <Button variant="default" loading={tell.isPending} onClick={() => tell.mutate()}>
          What would change
        </Button>
      </div>
      {tell.error && <Failure error={tell.error} />}
      {would?.leftOut.map((left) => (
        <p key={left} className="soft">
          Left out, it says nothing there: {left}
        </p>
      ))}
      {would?.asked.map((asked) => (
        <Question
          key={asked.field}
          asked={asked}
          said={said[asked.field] ?? []}
          onSay={(values) => setSaid((s) => ({ ...s, [asked.field]: values }))}
        />
      ))}
      {would && would.asked.length > 0 && (
        <Button variant="default" mt="sm" loading={tell.isPending} onClick={() => tell.mutate()}>
          Go on
        </Button>
      )}
      {would?.asked.length === 0 && (
        <>
          <Differences would={would} />
          <p>
            {would.former
              ? `What ${would.from} needs is kept as ${would.former}, until that is retired.`
              : 'Nothing was given yet: the install just moves.'}
            {would.give && ` ${would.give.length} steps would be left to do.`}
          </p>
          {move.error && <Failure error={move.error} />}
          <Button disabled={!may} loading={move.isPending} onClick={() => move.mutate()}>
            Move {name} to {would.to}
          </Button>
        </>
      )}
    </section>
  );
}

function Differences({ would }: { would: UpgradeView }) {
  if (would.differences.length === 0) return <p>Both releases need the same.</p>;
  return (
    <Wide>
      <Table verticalSpacing={4} aria-label="What is needed otherwise">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Need</Table.Th>
            <Table.Th>Of</Table.Th>
            <Table.Th>What</Table.Th>
            <Table.Th>Where</Table.Th>
            <Table.Th>Sheet</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {would.differences.map((d) => (
            <Table.Tr key={`${d.subject} ${d.what} ${d.place} ${d.change}`}>
              <Table.Td className="nowrap">{heads[d.change]}</Table.Td>
              <Table.Td>
                <code>{d.subject}</code>
              </Table.Td>
              <Table.Td>
                {d.what}
                {d.how && <div className="soft">{d.how}</div>}
              </Table.Td>
              <Table.Td>{d.place}</Table.Td>
              <Table.Td className="soft nowrap">{d.at}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Wide>
  );
}
