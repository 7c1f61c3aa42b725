import { HoverCard } from '@mantine/core';
import type { JudgementView } from '../../api/schema.gen';
import { Verdict } from '../../parts/Verdict';
import { RightFacts } from './RightFacts';

/** A right in a cell: sign, word, and where it holds if the column is wider than that. Hover shows everything; so does a click. */
export function RightChip({ right, place, onSelect }: { right: JudgementView; place: string; onSelect: () => void }) {
  return (
    <HoverCard width={460} openDelay={250} position="bottom-start" withinPortal>
      <HoverCard.Target>
        <button
          type="button"
          className="chip"
          onClick={onSelect}
          aria-label={`${right.verdict}: ${right.right} on ${right.place} for ${right.account}`}
        >
          <Verdict verdict={right.verdict} bare={right.verdict === 'met'} /> {right.right}
          {right.place !== place && <span className="at"> {right.place}</span>}
        </button>
      </HoverCard.Target>
      <HoverCard.Dropdown>
        <RightFacts right={right} brief />
      </HoverCard.Dropdown>
    </HoverCard>
  );
}
