import { Button, Group, Textarea, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import type { ConfirmableView, JudgementView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { ExactTime, Time } from '../../parts/Time';
import { useMay } from '../../parts/useMay';
import { Proof } from './Proof';

interface Props {
  install: string;
  right: JudgementView;
  asked: ConfirmableView;
  /** The product's name in full. */
  title: string;
}

/** What no survey reads: what a person must look at or do, what was last said of it, and the place to say it. */
export function PersonsWord({ install, right, asked, title }: Props) {
  const cache = useQueryClient();
  const mayNot = !useMay('planner');
  const [seenBy, setSeenBy] = useState('');
  const [proof, setProof] = useState('');
  const isTask = asked.work !== null;
  const say = useMutation({
    mutationFn: (held: boolean) =>
      need(
        api.POST('/api/installs/{name}/confirmations', {
          params: { path: { name: install } },
          body: {
            account: right.account,
            role: asked.name,
            held,
            seenBy: seenBy.trim() || null,
            proof: proof.trim() || null,
            place: right.place,
          },
        }),
      ),
    onSuccess: () => {
      setProof('');
      return cache.invalidateQueries({ queryKey: ['install', install] });
    },
  });
  return (
    <section aria-label="a person's confirmation">
      {isTask ? (
        <Task asked={asked} waits={right.verdict === 'pending'} />
      ) : (
        <Identity account={right.account} asked={asked} title={title} />
      )}
      {asked.at && asked.until && (
        <p className="soft">
          {asked.seenBy} saw it {isTask ? (asked.held ? 'done' : 'not done') : asked.held ? 'there' : 'missing'}{' '}
          <Time value={asked.at} />; valid until <ExactTime value={asked.until} />.
        </p>
      )}
      {asked.at && <Proof install={install} name={asked.name} at={asked.at} />}
      <TextInput
        label="Who looked"
        description={`Left empty, it is you. The name and the time are recorded; the confirmation is valid for ${asked.forDays} days.`}
        maxLength={128}
        value={seenBy}
        onChange={(e) => setSeenBy(e.currentTarget.value)}
      />
      {isTask && (
        <Textarea
          mt="sm"
          label="How it was seen"
          description="Others can read it, and owners can erase it; the log holds its hash. No password, no key: such a text is refused."
          maxLength={2000}
          autosize
          minRows={2}
          value={proof}
          onChange={(e) => setProof(e.currentTarget.value)}
        />
      )}
      <Group mt="sm">
        <Button
          onClick={() => say.mutate(true)}
          loading={say.isPending}
          disabled={mayNot || (isTask && proof.trim() === '')}
        >
          {isTask ? 'It is done' : 'It is there'}
        </Button>
        <Button variant="default" onClick={() => say.mutate(false)} disabled={mayNot || say.isPending}>
          {isTask ? 'It is not done' : 'It is not there'}
        </Button>
        {mayNot && <span className="soft">You need the planner role to record this.</span>}
        {say.isSuccess && <span role="status">Recorded.</span>}
      </Group>
      {say.error && <Failure error={say.error} />}
    </section>
  );
}

/** What is to be done, and how one sees that it is. */
function Task({ asked, waits }: { asked: ConfirmableView; waits: boolean }) {
  return (
    <>
      <h3>A person does it</h3>
      <p>{asked.work}.</p>
      <p>
        It is done when <b>{asked.doneWhen}</b>. No survey reads this.
      </p>
      {waits && asked.waitsFor.length > 0 && (
        <p className="soft">It waits for {asked.waitsFor.map(awaited).join(', ')}.</p>
      )}
    </>
  );
}

/** What a task waits for, in words. */
const awaited = (name: string) =>
  name === 'installed' ? 'the product to be installed' : name === 'account' ? 'its account' : `the task ${name}`;

/** An identity inside the product, and what it must let the account do. */
function Identity({ account, asked, title }: { account: string; asked: ConfirmableView; title: string }) {
  return (
    <>
      <h3>Seen inside {title}</h3>
      <p>
        No survey reads this. Look there whether <code>{account}</code> is mapped to <b>{asked.name}</b>
        {asked.lets.length > 0 && ', and that it lets it do this and nothing more:'}
      </p>
      {asked.lets.length > 0 && (
        <ul>
          {asked.lets.map((operation) => (
            <li key={operation}>{operation}</li>
          ))}
        </ul>
      )}
    </>
  );
}
