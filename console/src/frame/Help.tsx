import { Modal } from '@mantine/core';
import type { FitCountsView } from '../api/schema.gen';
import { Balance } from '../parts/Balance';

const none = { met: 3, missing: 0, pending: 0, unseen: 0, excess: 0, forbidden: 0, unread: 0, accepted: 0, words: '' };

/** What the balance can look like, and what each means. */
const signs: [FitCountsView, string][] = [
  [none, 'Just right: nothing is missing, nothing is too much.'],
  [{ ...none, missing: 2 }, 'To the left what is missing: the application fails there.'],
  [{ ...none, pending: 2 }, 'Hollow: pending. Setup or a person gives it; it does not count as missing.'],
  [{ ...none, excess: 1 }, 'To the right what is too much.'],
  [{ ...none, forbidden: 1 }, 'Long and hatched: too much, and forbidden by a rule of the organization.'],
  [{ ...none, unseen: 3 }, 'Dots below the line: not seen, and so never called fine.'],
  [{ ...none, missing: 12, excess: 3 }, 'A figure where the strokes do not fit.'],
];

const keys: [string, string][] = [
  ['/', 'search everything, from any page'],
  ['f', 'to the filter of a table'],
  ['o', 'in a matrix: only what is off'],
  ['arrows', 'in a matrix: from right to right'],
  ['Enter', 'opens what is focused'],
  ['Esc', 'closes a panel or a dialog'],
  ['?', 'this key'],
];

/** The key to the balance, and to the keyboard. */
export function Help({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      size="lg"
      title="Signs and keys"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <h3>The balance</h3>
      <table className="key">
        <tbody>
          {signs.map(([counts, words]) => (
            <tr key={words}>
              <td>
                <Balance counts={{ ...counts, words }} quiet />
              </td>
              <td>{words}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h3>Keys</h3>
      <table className="key">
        <tbody>
          {keys.map(([key, words]) => (
            <tr key={key}>
              <td>
                <kbd>{key}</kbd>
              </td>
              <td>{words}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Modal>
  );
}
