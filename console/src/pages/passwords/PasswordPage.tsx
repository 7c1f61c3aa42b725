import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { api, need } from '../../api/client';
import { password as passwordQuery } from '../../api/queries';
import { useJob } from '../../api/useJob';
import { useRejoin } from '../../api/useRejoin';
import { Failure } from '../../parts/Failure';
import { PasswordPlaces } from '../../parts/PasswordPlaces';
import { Time } from '../../parts/Time';
import { AddPlace } from './AddPlace';
import { HandOver } from './HandOver';
import { Order } from './Order';
import { Renewal } from './Renewal';
import { Standing } from './Standing';
import { Try } from './Try';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { useMay } from '../../parts/useMay';

const route = getRouteApi('/frame/passwords/$estate/$account');

/** One password: where is it typed, does it work, and in what order is it renewed? */
export function PasswordPage() {
  const mayGrant = useMay('granter');
  const mayPlan = useMay('planner');
  const { estate, account } = route.useParams();
  const view = useQuery(passwordQuery(estate, account));
  const { followed, follow, followId } = useJob();
  const begin = useMutation({
    mutationFn: () =>
      need(
        api.POST('/api/estates/{name}/passwords/{account}/renewals', {
          params: { path: { name: estate, account } },
        }),
      ),
    onSuccess: (renewal) => followId(renewal.id, 'renew'),
  });
  const queries = useQueryClient();
  const forget = useMutation({
    mutationFn: (number: number) =>
      need(
        api.DELETE('/api/estates/{name}/passwords/{account}/places/{number}', {
          params: { path: { name: estate, account, number } },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  const under = view.data?.renewals.find((r) => r.state === 'running' || r.state === 'queued');
  useRejoin(followed, followId, under && { id: under.id, kind: 'renew' }, view.dataUpdatedAt);
  if (!view.data) return <PageWithout title={account} error={view.error} />;
  const { password, places, managedObstacles, order, remarks, whyNot, renewals } = view.data;
  const open = renewals.find((r) => !r.endedAt);
  const last = open ?? renewals[0];
  return (
    <>
      <div className="head">
        <PageTitle>{password.account}</PageTitle>
        <Standing standing={password.standing} />
        {password.due && (
          <span className="soft">
            due <Time value={password.due} />
          </span>
        )}
        <span className="grow" />
        <Link to="/passwords" search={{ estate }}>
          Passwords of {estate}
        </Link>
      </div>
      <p>{password.words}</p>
      <p className="soft">
        Changed by {password.keptBy}; used by {password.uses.join(', ')}
        {password.setAt && (
          <>
            ; last set <Time value={password.setAt} />
          </>
        )}
        .
      </p>
      {password.quarrel && <p>{password.quarrel}</p>}
      {last && (
        <Renewal
          renewal={last}
          running={followed?.kind === 'renew' && followed.running ? (followed.last?.text ?? 'begins') : null}
          mayGrant={mayGrant}
          follow={follow}
        />
      )}
      {begin.error && <Failure error={begin.error} />}
      {!open && order.length > 0 && (
        <section aria-label="order of a renewal">
          <div className="head">
            <h2>Renewing it, ordered for the least downtime</h2>
            <span className="grow" />
            <Button
              disabled={whyNot !== null || !mayGrant}
              loading={begin.isPending}
              onClick={() => begin.mutate()}
              variant={last ? 'default' : 'filled'}
            >
              Begin these {order.length} steps
            </Button>
          </div>
          {whyNot && <p className="soft">Not now: {whyNot}.</p>}
          <Order steps={order} />
          {remarks.map((r) => (
            <p key={r}>
              <strong>Mind:</strong> {r}
            </p>
          ))}
        </section>
      )}
      {order.length === 0 && whyNot && <p className="soft">It is not renewed from here: {whyNot}.</p>}
      <PasswordPlaces places={places} remove={mayPlan ? (place) => forget.mutate(place) : null} />
      {forget.error && <Failure error={forget.error} />}
      <AddPlace estate={estate} account={account} may={mayPlan} />
      <HandOver estate={estate} account={account} may={mayGrant} />
      {managedObstacles && (
        <section aria-label="could a gMSA replace it">
          <h2>Could a gMSA replace it?</h2>
          {managedObstacles.length === 0 ? (
            <p>Nothing known prevents a gMSA (group managed service account).</p>
          ) : (
            <ul>
              {managedObstacles.map((o) => (
                <li key={o}>{o}</li>
              ))}
            </ul>
          )}
        </section>
      )}
      <Try estate={estate} account={account} waits={view.data.waits} mayGrant={mayGrant} />
    </>
  );
}
