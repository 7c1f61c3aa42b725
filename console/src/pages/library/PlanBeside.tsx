import type { PlanView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { alike } from '../install/alike';

/** What the answers so far come to, before anything is kept. */
export function PlanBeside({ asked, plan, error }: { asked: boolean; plan: PlanView | null; error: Error | null }) {
  return (
    <aside aria-label="What it comes to">
      <h2>What it comes to</h2>
      {!asked && <p className="soft">The plan stands here when every question has an answer.</p>}
      {asked && error && <Failure error={error} />}
      {asked && !error && !plan && <p className="soft">Planning…</p>}
      {asked && !error && plan && <Plan plan={plan} />}
    </aside>
  );
}

function Plan({ plan }: { plan: PlanView }) {
  return (
    <>
      <p>
        {plan.accounts.length} accounts, {plan.groups.length} groups, {plan.grants.length} rights;{' '}
        {plan.grants.filter((g) => g.givenBy === 'setup').length} of them come with setup.
      </p>
      {plan.accounts.map((account) => (
        <section key={account.key} aria-label={account.key}>
          <h3>
            {account.key} <code>{account.name}</code> {account.existing && <span className="soft">existing</span>}
          </h3>
          <ul>
            {alike(plan.grants.filter((g) => g.account === account.key)).map(({ first, places }) => (
              <li key={first.id}>
                {first.right}
                {places[0] && (
                  <span className="soft"> · {places.length > 3 ? `${places.length} places` : places.join(', ')}</span>
                )}
              </li>
            ))}
          </ul>
        </section>
      ))}
      {plan.groups.length > 0 && (
        <p>
          Groups: <span className="soft">{plan.groups.map((g) => g.name).join(', ')}</span>
        </p>
      )}
      {plan.decisions.length > 0 && (
        <p className="soft">
          {plan.decisions.length} choices among alternatives, taken as the sheet prefers; they can be changed in the
          plan.
        </p>
      )}
      {plan.notes.map((note) => (
        <p key={note} className="soft">
          {note}
        </p>
      ))}
    </>
  );
}
