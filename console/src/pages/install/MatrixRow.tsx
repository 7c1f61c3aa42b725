import { Link } from '@tanstack/react-router';
import { memo, type Ref } from 'react';
import type { AccountFitView, JudgementView } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { gather } from './gather';
import { GatheredChip } from './GatheredChip';

interface Props {
  install: string;
  account: AccountFitView;
  rights: JudgementView[];
  places: string[];
  columnOf: (right: JudgementView) => string;
  quiet: boolean;
  onSelect: (id: string) => void;
  /** Its place among all rows, for whoever measures it. */
  index: number;
  measure: Ref<HTMLTableRowElement>;
}

/** An account, and in each column what it needs or holds there. */
export const MatrixRow = memo(function MatrixRow(props: Props) {
  const { install, account, rights, places, columnOf, quiet, onSelect, index, measure } = props;
  return (
    <tr ref={measure} data-index={index}>
      <th scope="row">
        <Link to="/installs/$name/accounts/$account" params={{ name: install, account: account.key }}>
          {account.key}
        </Link>{' '}
        <code>{account.name}</code>
        <div className="purpose">{account.purpose}</div>
        <Balance counts={account.counts} quiet />
      </th>
      {places.map((place) => (
        <td key={place}>
          {gather(rights.filter((r) => columnOf(r) === place)).map((alike) => (
            <GatheredChip key={alike.right} alike={alike} place={place} quiet={quiet} onSelect={onSelect} />
          ))}
        </td>
      ))}
    </tr>
  );
});
