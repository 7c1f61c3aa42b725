import type { SettingsFindingView } from '../../../api/schema.gen';

const signs: Record<string, [string, string]> = {
  wrong: ['✗', 'outcome-fail'],
  caution: ['!', 'outcome-mind'],
  unseen: ['?', 'outcome-unseen'],
};

/** What was found by holding the settings against each other and against the people last read. */
export function Findings({ findings }: { findings: SettingsFindingView[] }) {
  if (findings.length === 0) return <p className="soft">The settings are consistent, as far as read.</p>;
  return (
    <ul className="findings" aria-label="findings about the settings">
      {findings.map((finding) => {
        const [sign, look] = signs[finding.weight] ?? ['?', 'outcome-unseen'];
        return (
          <li key={finding.code + finding.text}>
            <b className={look}>
              <span aria-hidden="true">{sign}</span> {finding.weight}
            </b>{' '}
            {finding.text} <span className="soft">{finding.fix}</span>
          </li>
        );
      })}
    </ul>
  );
}
