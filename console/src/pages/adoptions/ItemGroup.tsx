import { NativeSelect, Table } from '@mantine/core';
import type { AdoptionAnswerOrder, AdoptionItemView } from '../../api/schema.gen';
import { Time } from '../../parts/Time';
import { Wide } from '../../parts/Wide';

const answers = [
  { value: '', label: 'not answered', disabled: true },
  { value: 'needed', label: 'needed' },
  { value: 'not-needed', label: 'not needed' },
  { value: 'not-sure', label: 'not sure' },
];

interface Props {
  account: string;
  heldBy: string;
  items: AdoptionItemView[];
  busy: boolean;
  answer: (items: AdoptionItemView[], word: AdoptionAnswerOrder['word']) => void;
}

/** What one account holds in one way, with an answer for each, or for all of them at once. */
export function ItemGroup({ account, heldBy, items, busy, answer }: Props) {
  const first = items[0]?.word ?? '';
  const same = items.every((i) => (i.word ?? '') === first) ? first : '';
  const say = (which: AdoptionItemView[], word: string) => {
    if (word) answer(which, word as AdoptionAnswerOrder['word']); // one of the answers above
  };
  return (
    <section aria-label={`${account}, ${heldBy}`}>
      <div className="head">
        <h2>{account}</h2>
        <span className="soft">{heldBy}</span>
        <span className="grow" />
        {items.length > 1 && <span className="soft">all {items.length}:</span>}
        {items.length > 1 && (
          <NativeSelect
            aria-label={`Answer all: ${account}, ${heldBy}`}
            size="xs"
            data={answers}
            value={same}
            disabled={busy}
            onChange={(e) => say(items, e.currentTarget.value)}
          />
        )}
      </div>
      <Wide>
        <Table layout="fixed" verticalSpacing="xs" aria-label={`${account}, ${heldBy}`}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th w="20%">Holds</Table.Th>
              <Table.Th w="18%">At</Table.Th>
              <Table.Th w={170}>Is it needed?</Table.Th>
              <Table.Th>Known facts</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {items.map((item) => (
              <Table.Tr key={item.id}>
                <Table.Td>{item.right}</Table.Td>
                <Table.Td>{item.place}</Table.Td>
                <Table.Td>
                  <NativeSelect
                    aria-label={`${item.right} at ${item.place}`}
                    size="xs"
                    miw={130}
                    data={item.whyNot ? answers.filter((a) => a.value !== 'needed') : answers}
                    value={item.word ?? ''}
                    disabled={busy}
                    onChange={(e) => say([item], e.currentTarget.value)}
                  />
                </Table.Td>
                <Table.Td>
                  <Known item={item} />
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
    </section>
  );
}

/** How it is held, what hangs on it, and who said what of it. */
function Known({ item }: { item: AdoptionItemView }) {
  return (
    <>
      {item.noEffect && <div style={{ fontWeight: 600 }}>without effect: {item.noEffect}</div>}
      {item.forbidden && <div style={{ fontWeight: 600 }}>through a forbidden group: {item.forbidden}</div>}
      {item.whyNot && <div>the sheet cannot ask for it: {item.whyNot}</div>}
      {item.neededBy.length > 0 && <div>{item.neededBy.join(', ')} needs it already</div>}
      {item.paths.map((path) => (
        <div key={path} className="soft">
          {path}
        </div>
      ))}
      {item.brings.length > 0 && <div className="soft">brings along {item.brings.join(', ')}</div>}
      {item.by && item.at && (
        <div>
          {item.why ? `${item.why}: ` : ''}
          {item.by}, <Time value={item.at} />
        </div>
      )}
    </>
  );
}
