import { Button, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { adoption as adoptionQuery } from '../../api/queries';
import type { AdoptionAnswerOrder, AdoptionItemView } from '../../api/schema.gen';
import { useJob } from '../../api/useJob';
import { Failure } from '../../parts/Failure';
import { JobProgress } from '../../parts/JobProgress';
import { Time } from '../../parts/Time';
import { Draft } from './Draft';
import { ItemGroup } from './ItemGroup';
import { PageTitle } from '../../parts/PageTitle';
import { PageWithout } from '../../parts/PageWithout';
import { Simulated } from '../../parts/Simulated';

const route = getRouteApi('/frame/adoptions/$name');

/** One adoption: what do these accounts hold, and is it needed? */
export function AdoptionPage() {
  const { name } = route.useParams();
  const cache = useQueryClient();
  const navigate = useNavigate();
  const adoption = useQuery(adoptionQuery(name));
  const { followed, follow } = useJob();
  const [why, setWhy] = useState('');
  const read = useMutation({
    mutationFn: (estate: string) =>
      need(api.POST('/api/estates/{name}/survey', { params: { path: { name: estate } } })),
    onSuccess: follow,
  });
  const answer = useMutation({
    mutationFn: ({ items, word }: { items: AdoptionItemView[]; word: AdoptionAnswerOrder['word'] }) =>
      need(
        api.POST('/api/adoptions/{name}/answers', {
          params: { path: { name } },
          body: { items: items.map((i) => i.id), word, why: why.trim() || null },
        }),
      ),
    onSuccess: (view) => cache.setQueryData(adoptionQuery(name).queryKey, view),
  });
  const finish = useMutation({
    mutationFn: () => need(api.POST('/api/adoptions/{name}/finish', { params: { path: { name } } })),
    onSuccess: () => cache.invalidateQueries(),
  });
  const [shown, setShown] = useState(false);
  const [sure, setSure] = useState(false);
  const remove = useMutation({
    mutationFn: () => need(api.DELETE('/api/adoptions/{name}', { params: { path: { name } } })),
    onSuccess: () => void cache.invalidateQueries(),
  });
  // who has gone to another page meanwhile is left there
  const toInstall = { onSuccess: () => void navigate({ to: '/installs/$name', params: { name } }) };
  const toList = { onSuccess: () => void navigate({ to: '/adoptions' }) };
  if (!adoption.data) return <PageWithout title={name} error={adoption.error} />;
  const { summary, items, services, missing, unseen, open, simulated, surveyedAt } = adoption.data;
  const running = followed?.running === true;
  const groups = [...new Set(items.map((i) => `${i.account}\n${i.heldBy}`))].map((key) =>
    items.filter((i) => `${i.account}\n${i.heldBy}` === key),
  );
  return (
    <>
      <div className="head">
        <PageTitle>{summary.title}</PageTitle>
        <span>{summary.name}</span>
        <Simulated of={simulated} />
        <span className="grow" />
        <Button variant="default" loading={running} onClick={() => read.mutate(summary.estate)}>
          Survey the estate
        </Button>
        <Button
          variant="default"
          loading={remove.isPending}
          onClick={() => (sure ? remove.mutate(undefined, toList) : setSure(true))}
        >
          {sure ? `Remove ${name} with its answers` : 'Remove …'}
        </Button>
        <Button disabled={!surveyedAt || missing.length > 0} onClick={() => setShown(true)}>
          What it comes to …
        </Button>
      </div>
      <p className="soft">
        {surveyedAt ? (
          <>
            surveyed <Time value={surveyedAt} />;{' '}
            {open === 0 ? 'all items are answered' : `${open} of ${items.length} items are not answered yet`}
          </>
        ) : (
          'This estate was not surveyed yet.'
        )}
      </p>
      <div role="status" aria-live="polite">
        {followed?.last && running && <JobProgress event={followed.last} running />}
      </div>
      {read.error && <Failure error={read.error} />}
      {answer.error && <Failure error={answer.error} />}
      {remove.error && <Failure error={remove.error} />}
      {shown && (
        <Draft
          name={name}
          onClose={() => setShown(false)}
          finish={open > 0 ? null : () => finish.mutate(undefined, toInstall)}
          busy={finish.isPending}
          error={finish.error}
        />
      )}
      {missing.length > 0 && (
        <p>
          <b>Not found:</b> {missing.join(', ')}. Survey the estate; what is not there then is not there.
        </p>
      )}
      {unseen.length > 0 && (
        <p>
          <b>Unseen, so more may be held there:</b> {unseen.join('; ')}.
        </p>
      )}
      {services.length > 0 && <p className="soft">{services.join('; ')}.</p>}
      {items.length > 0 && (
        <TextInput
          label="Because"
          description="Stored with your next answers and repeated in the sheet. What nobody is sure of becomes a need, and the sheet says so; what a sheet has no words for, an exception."
          maxLength={500}
          value={why}
          onChange={(e) => setWhy(e.currentTarget.value)}
          maw={640}
          mb="md"
        />
      )}
      {groups.map((group) =>
        group[0] ? (
          <ItemGroup
            key={group[0].id}
            account={group[0].account}
            heldBy={group[0].heldBy}
            items={group}
            busy={answer.isPending}
            answer={(which, word) => answer.mutate({ items: which, word })}
          />
        ) : null,
      )}
    </>
  );
}
