import type { AccountPasswordView } from '../../api/schema.gen';

const words: Record<string, [sign: string, word: string]> = {
  overdue: ['✗', 'overdue'],
  unreasoned: ['?', 'no reason'],
  soon: ['!', 'soon'],
  unseen: ['·', 'unseen'],
  later: ['✓', 'later'],
  undated: ['–', 'undated'],
  managed: ['✓', 'managed'],
  'not-made': ['–', 'not made'],
};

/** How a password stands, as a sign and a word: colors speak only of fit. */
export function Standing({ standing }: { standing: AccountPasswordView['standing'] }) {
  const [sign, word] = words[standing] ?? ['·', standing];
  const urgent = standing === 'overdue' || standing === 'unreasoned' || standing === 'soon';
  return (
    <span className="nowrap" style={{ fontWeight: urgent ? 600 : 400 }}>
      <span aria-hidden="true">{sign} </span>
      {word}
    </span>
  );
}
