import { useState } from 'react';
import { Verdict } from '../../parts/Verdict';
import { fewEnough, figure, type Gathered, isFine } from './gather';
import { RightChip } from './RightChip';

interface Props {
  alike: Gathered;
  place: string;
  quiet: boolean;
  onSelect: (id: string) => void;
}

/** Rights of one name in a cell: each on its line where they are few; otherwise one line with a figure, the odd ones below it. */
export function GatheredChip({ alike, place, quiet, onSelect }: Props) {
  const [open, setOpen] = useState(false);
  const { all, right } = alike;
  const many = all.length > fewEnough;
  const odd = all.filter((r) => !isFine(r));
  // where everything is odd in one way, the figure says it; where few are, each is named
  const named = odd.length < all.length || new Set(odd.map((r) => r.verdict)).size > 1 ? odd : [];
  const shown = !many || open ? all : named.slice(0, fewEnough);
  return (
    <>
      {many && (
        <button type="button" className="chip" aria-expanded={open} onClick={() => setOpen(!open)}>
          <Verdict verdict={odd.length === 0 ? 'met' : (odd[0]?.verdict ?? 'met')} bare /> {right}{' '}
          <span className="at">· {figure(alike)}</span>
          <span className="only-read">
            {' '}
            for {all[0]?.account} in {place}
          </span>
        </button>
      )}
      <div className={many ? 'alike' : ''}>
        {shown.map((one) => (
          <RightChip key={one.id} right={one} place={place} quiet={quiet} onSelect={() => onSelect(one.id)} />
        ))}
        {many && !open && named.length > shown.length && (
          <span className="at">and {named.length - shown.length} more are off</span>
        )}
      </div>
    </>
  );
}
