import type { PathView } from '../api/schema.gen';

/** A path in words: account, group, group, local group, right. */
export function PathLine({ path }: { path: PathView }) {
  return (
    <ol className="path">
      {path.steps.map((step, i) => (
        <li key={i} className={`step-${step.kind}`}>
          {step.name}
        </li>
      ))}
    </ol>
  );
}
