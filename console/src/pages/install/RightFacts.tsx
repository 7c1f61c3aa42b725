import { Link } from '@tanstack/react-router';
import type { BranchView, JudgementView } from '../../api/schema.gen';
import { PathLine } from '../../parts/PathLine';
import { Until } from '../../parts/Time';
import { Verdict } from '../../parts/Verdict';

const databaseKinds = [
  'instance-role',
  'instance-permission',
  'database-role',
  'database-permission',
  'database-owner',
];

/** Everything known of a right: verdict, reason, need, team, sheet line, paths. */
export function RightFacts({ right, brief, estate }: { right: JudgementView; brief?: boolean; estate?: string }) {
  const paths = brief ? right.paths.slice(0, 2) : right.paths;
  const brings = brief ? right.brings.slice(0, 3) : right.brings;
  return (
    <dl className="facts">
      <dt>verdict</dt>
      <dd>
        <Verdict verdict={right.verdict} /> {right.reason}
      </dd>
      <dt>account</dt>
      <dd>
        <code>{right.account}</code>
      </dd>
      {estate && ['logon', 'kept-out', 'privilege', 'local-group', 'service'].includes(right.kind) && (
        <>
          <dt>on</dt>
          <dd>
            <Link to="/estates/$estate/hosts/$host" params={{ estate, host: right.place }}>
              {right.place}
            </Link>
          </dd>
        </>
      )}
      {estate && databaseKinds.includes(right.kind) && (
        <Fact name="at">
          <Link
            to="/estates/$estate/instances/$instance"
            params={{ estate, instance: right.place.split('/')[0] ?? right.place }}
          >
            {right.place}
          </Link>
        </Fact>
      )}
      {right.why && (
        <>
          <dt>needed because</dt>
          <dd>{right.why}</dd>
        </>
      )}
      {right.team && (
        <>
          <dt>{right.kind === 'task' ? 'done by' : 'given by'}</dt>
          <dd>{right.givenBy === 'setup' ? "the product's setup" : `the ${right.team} team`}</dd>
        </>
      )}
      {right.through && (
        <>
          <dt>through</dt>
          <dd>{right.through}</dd>
        </>
      )}
      {right.at && (
        <>
          <dt>asked for at</dt>
          <dd>
            <code>{right.at}</code>
          </dd>
        </>
      )}
      {paths.map((path, i) => (
        <Fact key={i} name="path">
          <PathLine path={path} />
        </Fact>
      ))}
      {paths.length < right.paths.length && <Fact name="">and {right.paths.length - paths.length} more</Fact>}
      {right.deniedBy.map((path, i) => (
        <Fact key={i} name="denied by">
          <PathLine path={path} />
        </Fact>
      ))}
      {right.branch && <Below branch={right.branch} account={right.account} estate={estate} brief={brief ?? false} />}
      {right.accepted && (
        <Fact name="accepted by">
          {right.accepted.by} until <Until ends={right.accepted} />: {right.accepted.why}
        </Fact>
      )}
      {right.notes.map((note) => (
        <Fact key={note} name="note">
          {note}
        </Fact>
      ))}
      {brings.length > 0 && (
        <Fact name="brings along">
          {brings.join('; ')}
          {brings.length < right.brings.length && ` and ${right.brings.length - brings.length} more`}
        </Fact>
      )}
    </dl>
  );
}

/** What was found below a branch, object by object, with the way to its trace. */
function Below({
  branch,
  account,
  estate,
  brief,
}: {
  branch: BranchView;
  account: string;
  estate?: string | undefined;
  brief: boolean;
}) {
  return (
    <>
      <Fact name="objects below">
        {branch.can} can, {branch.cannot} cannot{branch.unseen > 0 && `, ${branch.unseen} unseen`}
      </Fact>
      {branch.failures.map((failure) => (
        <Fact key={failure.words} name={`${failure.count} ${failure.count === 1 ? 'fails' : 'fail'}`}>
          {failure.words}
        </Fact>
      ))}
      {!brief && branch.cannot + branch.unseen > 0 && (
        <Fact name="">
          <Link
            to="/trace"
            search={{
              estate,
              account,
              act: branch.act,
              attributes: branch.attributes,
              of: branch.of,
              below: branch.below,
            }}
          >
            Trace it
          </Link>
        </Fact>
      )}
    </>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </>
  );
}
