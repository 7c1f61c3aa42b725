import { Button, Tabs } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { lazy, Suspense } from 'react';
import { api, ApiError, need } from '../../api/client';
import {
  install as installQuery,
  matrix as matrixQuery,
  runs as runsQuery,
  signIn as signInQuery,
} from '../../api/queries';
import { useJob } from '../../api/useJob';
import { useRejoin } from '../../api/useRejoin';
import { Balance } from '../../parts/Balance';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { JobProgress } from '../../parts/JobProgress';
import { Time } from '../../parts/Time';
import { HandoverTab } from './HandoverTab';
import { HistoryTab } from './HistoryTab';
import { Matrix } from './Matrix';
import { PlanTab } from './PlanTab';
import { PlaySetup } from './PlaySetup';
import { RunList } from '../runs/RunList';
import { ReviewTab } from './review/ReviewTab';
import { SignInTab } from './signin/SignInTab';
import { Stage } from './Stage';
import { isInstallTab, isOfFit } from './tabs';
import { WorklistTab } from './WorklistTab';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { Simulated } from '../../parts/Simulated';
import { useMay } from '../../parts/useMay';

const route = getRouteApi('/frame/installs/$name');

// An editor, and what it needs, are large, and only this tab needs them.
const TextTab = lazy(async () => ({ default: (await import('./TextTab')).TextTab }));

/** One install: does it fit, and what is left to do? */
export function InstallPage() {
  const { name } = route.useParams();
  const { tab } = route.useSearch();
  const navigate = useNavigate();
  const install = useQuery(installQuery(name));
  // whatever tab is open tells whether it was judged
  const fit = useQuery(matrixQuery(name));
  const signIn = useQuery(signInQuery(name));
  const { followed, follow, followId, clear } = useJob();
  // the newest are enough to find one that is under way
  const runs = useQuery(runsQuery({ install: name }));
  const under = runs.data?.items.find((r) => r.state === 'running' || r.state === 'queued');
  useRejoin(followed, followId, under, runs.dataUpdatedAt);
  const mayVerify = useMay('planner');
  const verify = useMutation({
    mutationFn: () => need(api.POST('/api/installs/{name}/verify', { params: { path: { name } } })),
    onSuccess: follow,
  });
  if (!install.data) return <PageWithout title={name} error={install.error} />;
  const summary = install.data.summary;
  const unverified = fit.error instanceof ApiError && fit.error.status === 409;
  // what was judged before is on its way: the page does not begin with another tab until it is there
  const isJudged = fit.data !== undefined || (summary.fit !== null && !fit.error);
  const shown = tab ?? (isJudged ? 'matrix' : 'plan');
  const running = followed?.running === true;
  return (
    <>
      <div className="head">
        <PageTitle>{summary.title}</PageTitle>
        <span>{summary.name}</span>
        <Link to="/sheets/$name" params={{ name: summary.sheet }} className="soft">
          {summary.sheet}
        </Link>
        <Stage name={name} stage={summary.stage} />
        <Simulated of={summary.simulated} />
        <span className="grow" />
        <PlaySetup name={name} estate={summary.estate} stage={summary.stage} />
        <Button
          variant="default"
          loading={verify.isPending || (running && followed.kind === 'verify')}
          disabled={running || !mayVerify}
          onClick={() => verify.mutate()}
        >
          Verify
        </Button>
      </div>
      <div className="head">
        {summary.fit && <Balance counts={summary.fit} large />}
        {summary.surveyedAt && (
          <span className="soft">
            surveyed <Time value={summary.surveyedAt} />
          </span>
        )}
      </div>
      <div role="status" aria-live="polite">
        {followed?.last &&
          followed.kind !== 'sign-in' &&
          (running || followed.kind === 'grant' || followed.last.state !== 'done') && (
            <JobProgress event={followed.last} running={running} />
          )}
      </div>
      {verify.error && <Failure error={verify.error} />}
      {summary.stage === 'retiring' && (
        <p className="soft">
          This install is being retired: what only it needed is excess now, and the worklist takes it away. What others
          need stays. Accounts are disabled first and removed later; until then, undo brings everything back.
        </p>
      )}
      {unverified && <p className="empty">This estate was not surveyed yet. Verify surveys it and changes nothing.</p>}
      {fit.error && !unverified && <Failure error={fit.error} />}
      <Tabs
        value={shown}
        onChange={(value) =>
          void navigate({
            to: '/installs/$name',
            params: { name },
            search: isInstallTab(value) ? { tab: value } : {},
          })
        }
        color="gray"
        keepMounted={false}
      >
        <Tabs.List mb="md">
          <Tabs.Tab value="plan">Plan</Tabs.Tab>
          {isJudged && <Tabs.Tab value="matrix">Matrix</Tabs.Tab>}
          {isJudged && <Tabs.Tab value="worklist">Worklist</Tabs.Tab>}
          {signIn.data && <Tabs.Tab value="sign-in">Sign-in</Tabs.Tab>}
          {isJudged && <Tabs.Tab value="handover">Handover</Tabs.Tab>}
          {isJudged && <Tabs.Tab value="review">Review</Tabs.Tab>}
          <Tabs.Tab value="runs">Runs</Tabs.Tab>
          <Tabs.Tab value="history">History</Tabs.Tab>
          <Tabs.Tab value="text">Text</Tabs.Tab>
        </Tabs.List>
        <Tabs.Panel value="plan">
          <PlanTab name={name} />
        </Tabs.Panel>
        {isJudged && !fit.data && isOfFit(shown) && <Loading />}
        {fit.data && (
          <>
            <Tabs.Panel value="matrix">
              <Matrix install={name} follow={follow} />
            </Tabs.Panel>
            <Tabs.Panel value="worklist">
              <WorklistTab name={name} followed={followed} follow={follow} clear={clear} />
            </Tabs.Panel>
            <Tabs.Panel value="review">
              <ReviewTab install={name} />
            </Tabs.Panel>
            <Tabs.Panel value="handover">
              <HandoverTab name={name} estate={summary.estate} />
            </Tabs.Panel>
          </>
        )}
        <Tabs.Panel value="sign-in">
          <SignInTab name={name} followed={followed} follow={follow} />
        </Tabs.Panel>
        <Tabs.Panel value="runs">
          <RunList install={name} empty="Nothing was carried out for this install." />
        </Tabs.Panel>
        <Tabs.Panel value="history">
          <HistoryTab name={name} />
        </Tabs.Panel>
        <Tabs.Panel value="text">
          <Suspense fallback={<Loading />}>
            <TextTab name={name} sheet={summary.sheet} text={install.data.text} />
          </Suspense>
        </Tabs.Panel>
      </Tabs>
    </>
  );
}
