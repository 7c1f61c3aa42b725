import type { FitCountsView } from '../api/schema.gen';
import { strokes } from './strokes';

/** What the sign means. */
const key =
  'Left of the mark what is missing, hollow where it is pending; right of it what is excess, hatched where it is forbidden; a dot on the mark where nothing leans; dots below it for what is unseen.';

/** The balance with its words: strokes left of the mark for what is missing, right of it for what is excess;
 *  on hover, what the sign means. */
export function Balance({ counts, large, quiet }: { counts: FitCountsView; large?: boolean; quiet?: boolean }) {
  const { left, right, level, seen, dots } = strokes(counts);
  const middle = 48;
  return (
    <span className={`balance ${large ? 'balance-large' : ''}`}>
      <svg viewBox="0 0 96 22" role="img" aria-label={counts.words}>
        <title>{key}</title>
        <line x1="2" x2="94" y1="10" y2="10" className="balance-beam" />
        <line x1={middle} x2={middle} y1="4" y2="16" className="balance-mark" />
        {left.strokes.map((kind, i) => (
          <line key={i} className={`stroke-${kind}`} x1={middle - 6 - i * 6} x2={middle - 6 - i * 6} y1="5" y2="15" />
        ))}
        {right.strokes.map((kind, i) => (
          <line
            key={i}
            className={`stroke-${kind}`}
            x1={middle + 6 + i * 6}
            x2={middle + 6 + i * 6}
            y1={kind === 'forbidden' ? 1 : 5}
            y2={kind === 'forbidden' ? 19 : 15}
          />
        ))}
        {left.figure !== null && (
          <text x={middle - 6 - left.strokes.length * 6} y="14" textAnchor="end" className="figure-left">
            {left.figure}
          </text>
        )}
        {right.figure !== null && (
          <text x={middle + 4 + right.strokes.length * 6} y="14" className="figure-right">
            {right.figure}
          </text>
        )}
        {level && <circle cx={middle} cy="10" r="5" className={seen ? 'dot-right' : 'dot-far'} />}
        {dots.map((_, i) => (
          <circle key={i} cx={middle - 9 + i * 6} cy="20.2" r="1.6" className="dot-unseen" />
        ))}
      </svg>
      {!quiet && <span className="balance-words">{counts.words}</span>}
    </span>
  );
}
