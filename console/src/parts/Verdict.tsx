import type { JudgementView } from '../api/schema.gen';

/** A sign for each verdict, which tells it without colour. */
const signs: Record<JudgementView['verdict'], string> = {
  met: '●',
  missing: '◁',
  pending: '‹',
  unseen: '?',
  excess: '▷',
  forbidden: '▶',
  done: '–',
};

/** A verdict as sign and word, in its color: never color alone. */
export function Verdict({ verdict, bare }: { verdict: JudgementView['verdict']; bare?: boolean }) {
  return (
    <span className={`verdict verdict-${verdict}`}>
      <span aria-hidden="true">{signs[verdict]}</span>
      <span className={bare ? 'only-read' : undefined}> {verdict}</span>
    </span>
  );
}
