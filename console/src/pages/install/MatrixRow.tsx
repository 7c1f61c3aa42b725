import { Link } from '@tanstack/react-router';
import { memo, type Ref } from 'react';
import type { MatrixAsked } from '../../api/queries';
import type { JudgementView, MatrixColumnView, MatrixRowView } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { GatheredChip } from './GatheredChip';

interface Props {
  install: string;
  row: MatrixRowView;
  columns: MatrixColumnView[];
  asked: MatrixAsked;
  quiet: boolean;
  onSelect: (right: JudgementView) => void;
  /** Its place among all rows, for whoever measures it. */
  index: number;
  measure: Ref<HTMLTableRowElement>;
}

/** An account, and in each column what it needs or holds there. */
export const MatrixRow = memo(function MatrixRow(props: Props) {
  const { install, row, columns, asked, quiet, onSelect, index, measure } = props;
  return (
    <tr ref={measure} data-index={index}>
      <th scope="row">
        <Link to="/installs/$name/accounts/$account" params={{ name: install, account: row.key }}>
          {row.key}
        </Link>{' '}
        <code>{row.name}</code>
        <div className="purpose">{row.purpose}</div>
        <Balance counts={row.counts} quiet />
      </th>
      {columns.map(({ name }) => (
        <td key={name}>
          {row.lines
            .filter((line) => line.column === name)
            .map((line) => (
              <GatheredChip
                key={line.right}
                install={install}
                row={row}
                line={line}
                asked={asked}
                quiet={quiet}
                onSelect={onSelect}
              />
            ))}
        </td>
      ))}
    </tr>
  );
});
