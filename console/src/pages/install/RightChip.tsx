import { HoverCard } from '@mantine/core';
import type { JudgementView } from '../../api/schema.gen';
import { Verdict } from '../../parts/Verdict';
import { RightFacts } from './RightFacts';

interface Props {
  right: JudgementView;
  place: string;
  quiet: boolean;
  onSelect: () => void;
}

/** A right in a cell: sign, word, and where it holds if the column is wider than that. Hover and focus show
 *  everything; so does a click, which stays. */
export function RightChip({ right, place, quiet, onSelect }: Props) {
  return (
    <HoverCard disabled={quiet} width={460} openDelay={250} position="bottom-start" withinPortal>
      <HoverCard.Target>
        <button type="button" className="chip" onClick={onSelect}>
          <Verdict verdict={right.verdict} bare={right.verdict === 'met'} /> {right.right}{' '}
          <span className={right.place === place ? 'only-read' : 'at'}>
            <span className="only-read"> on</span> {right.place}
          </span>
          <span className="only-read"> for {right.account}</span>
        </button>
      </HoverCard.Target>
      <HoverCard.Dropdown>
        <RightFacts right={right} brief />
      </HoverCard.Dropdown>
    </HoverCard>
  );
}
