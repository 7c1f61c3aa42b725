const signs: Record<string, string> = {
  met: '●',
  missing: '◁',
  pending: '‹',
  unseen: '?',
  excess: '▷',
  forbidden: '▶',
  done: '–',
};

/** A verdict as sign and word, in its color: never color alone. */
export function Verdict({ verdict, bare }: { verdict: string; bare?: boolean }) {
  return (
    <span className={`verdict verdict-${verdict}`}>
      <span aria-hidden="true">{signs[verdict] ?? '–'}</span>
      <span className={bare ? 'only-read' : undefined}> {verdict}</span>
    </span>
  );
}
