import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type MatrixAsked, matrixLine } from '../../api/queries';
import type { JudgementView, MatrixLineView, MatrixRowView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { Verdict } from '../../parts/Verdict';
import { figure, markOf, unnamed } from './gather';
import { RightChip } from './RightChip';

interface Props {
  install: string;
  row: MatrixRowView;
  line: MatrixLineView;
  asked: MatrixAsked;
  quiet: boolean;
  onSelect: (right: JudgementView) => void;
}

/** Rights of one name in a cell: each on its line where they are few; otherwise one line with a figure, the odd ones below it. */
export function GatheredChip({ install, row, line, asked, quiet, onSelect }: Props) {
  const [open, setOpen] = useState(false);
  const { column, right, rights, count } = line;
  const many = count > rights.length;
  const all = useQuery({
    ...matrixLine(install, { account: row.key, column, right }, asked),
    enabled: many && open,
  });
  const more = many && !open && rights.length > 0 ? unnamed(line) : 0;
  return (
    <>
      {many && (
        <button type="button" className="chip" aria-expanded={open} onClick={() => setOpen(!open)}>
          <Verdict verdict={markOf(line)} bare /> {right} <span className="at">· {figure(line)}</span>
          <span className="only-read">
            {' '}
            for {row.name} in {column}
          </span>
        </button>
      )}
      <div className={many ? 'alike' : ''}>
        {((open && all.data) || rights).map((one) => (
          <RightChip key={one.id} right={one} place={column} quiet={quiet} onSelect={() => onSelect(one)} />
        ))}
        {open && all.isLoading && <Loading />}
        {open && all.error && <Failure error={all.error} />}
        {more > 0 && <span className="at">and {more} more are off</span>}
      </div>
    </>
  );
}
