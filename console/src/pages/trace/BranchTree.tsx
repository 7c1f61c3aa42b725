import type { TraceBranchView } from '../../api/schema.gen';

const barWidth = 80;

/** The branches that hold what was judged, top down, each with its counts; the line breaks where inheritance stops. */
export function BranchTree({ tree, of }: { tree: TraceBranchView[]; of: string }) {
  const unseen = tree.some((b) => b.unseen > 0);
  const most = Math.max(1, ...tree.map((b) => b.can + b.cannot + b.unseen));
  return (
    <table className="branches" aria-label={`OUs and containers with ${of} objects`}>
      <thead>
        <tr>
          <th scope="col">branch</th>
          <th scope="col" className="count">
            can
          </th>
          <th scope="col" className="count">
            cannot
          </th>
          {unseen && (
            <th scope="col" className="count">
              unseen
            </th>
          )}
          <th scope="col">
            <span className="only-read">share</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {tree.map((branch) => (
          <tr key={branch.dn} className={branch.isCause ? 'cause' : undefined}>
            <th scope="row" title={branch.dn}>
              {Array.from({ length: branch.depth }, (_, i) => (
                <span
                  key={i}
                  aria-hidden="true"
                  className={`rail ${i === branch.depth - 1 ? (branch.inherits === false ? 'rail-cut' : 'rail-last') : ''}`}
                />
              ))}
              {branch.name}
            </th>
            <td className="count">{branch.can || ''}</td>
            <td className="count verdict-missing">{branch.cannot || ''}</td>
            {unseen && <td className="count soft">{branch.unseen || ''}</td>}
            <td>
              <Share branch={branch} most={most} />
              <Mark branch={branch} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Mark({ branch }: { branch: TraceBranchView }) {
  if (branch.inherits === null) return <span className="soft mark">its ACL was not read</span>;
  if (branch.isCause)
    return <strong className="mark">{branch.inherits ? 'the reason lies here' : 'inheritance stops here'}</strong>;
  return branch.inherits ? null : <span className="soft mark">inheritance disabled</span>;
}

function Share({ branch, most }: { branch: TraceBranchView; most: number }) {
  const width = (count: number) => (barWidth * count) / most;
  const parts = [
    { kind: 'can', count: branch.can },
    { kind: 'cannot', count: branch.cannot },
    { kind: 'unseen', count: branch.unseen },
  ];
  let x = 0;
  return (
    <svg width={barWidth} height="10" aria-hidden="true">
      {parts.map(({ kind, count }) => {
        const left = x;
        x += width(count);
        return (
          count > 0 && <rect key={kind} className={`share-${kind}`} x={left} y="1" width={width(count)} height="8" />
        );
      })}
    </svg>
  );
}
