import { Button, Group, Modal, PasswordInput, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { secrets as secretsQuery } from '../../api/organizationQueries';
import type { SecretView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { OnlyFor } from '../../parts/OnlyFor';
import { PageTitle } from '../../parts/PageTitle';
import { Time } from '../../parts/Time';

/** The secrets kept here: whether each is set, and for what an owner allowed it. Their values are shown nowhere. */
export function SecretsPage() {
  return (
    <OnlyFor role="owner" title="Secrets">
      <Secrets />
    </OnlyFor>
  );
}

function Secrets() {
  const list = useQuery(secretsQuery);
  const [set, setSet] = useState<string | null>(null);
  return (
    <>
      <div className="head">
        <PageTitle>Secrets</PageTitle>
        <span className="soft">What may each be used for? Values are never shown.</span>
        <span className="grow" />
        <Button variant="default" onClick={() => setSet('')}>
          Set a secret …
        </Button>
      </div>
      {list.isPending && <Loading />}
      {list.error && <Failure error={list.error} />}
      {list.data?.length === 0 && <p className="empty">No estate names a secret, and none is kept.</p>}
      {list.data?.map((secret) => (
        <OneSecret key={secret.name} secret={secret} onSet={() => setSet(secret.name)} />
      ))}
      {set !== null && <SetSecret name={set} onClose={() => setSet(null)} />}
    </>
  );
}

function OneSecret({ secret, onSet }: { secret: SecretView; onSet: () => void }) {
  const queries = useQueryClient();
  const read = () => queries.invalidateQueries({ queryKey: ['secrets'] });
  const [sure, setSure] = useState(false);
  const remove = useMutation({
    mutationFn: () => need(api.DELETE('/api/secrets/{name}', { params: { path: { name: secret.name } } })),
    onSuccess: read,
  });
  const allow = useMutation({
    mutationFn: ({ use, on }: { use: string; on: boolean }) => {
      const params = { params: { path: { name: secret.name, use } } };
      return on
        ? need(api.PUT('/api/secrets/{name}/uses/{use}', params))
        : need(api.DELETE('/api/secrets/{name}/uses/{use}', params));
    },
    onSuccess: read,
  });
  return (
    <section aria-label={secret.name}>
      <div className="head">
        <h2>{secret.name}</h2>
        <span className="soft">
          {secret.setAt ? (
            <>
              set <Time value={secret.setAt} /> by {secret.setBy}
            </>
          ) : (
            'not set'
          )}
        </span>
        <span className="grow" />
        <Button size="compact-sm" variant="default" onClick={onSet}>
          Set {secret.name} …
        </Button>
        {secret.setAt && (
          <Button
            size="compact-sm"
            variant={sure ? 'filled' : 'subtle'}
            loading={remove.isPending}
            onClick={() => (sure ? remove.mutate() : setSure(true))}
          >
            {sure ? `Remove ${secret.name} for good` : 'Remove …'}
          </Button>
        )}
      </div>
      {secret.uses.map((use) => (
        <div className="head" key={use.id}>
          <span>{use.words}</span>
          <span className="soft">
            {use.allowedAt ? (
              <>
                allowed <Time value={use.allowedAt} /> by {use.allowedBy}
              </>
            ) : (
              'asked for, not allowed'
            )}
            {!use.isAsked && '; no estate asks for it any more'}
          </span>
          <span className="grow" />
          <Button
            size="compact-sm"
            variant="default"
            loading={allow.isPending && allow.variables.use === use.id}
            onClick={() => allow.mutate({ use: use.id, on: !use.allowedAt })}
          >
            {use.allowedAt ? 'Withdraw' : 'Allow it'}
          </Button>
        </div>
      ))}
      {(allow.error ?? remove.error) && <Failure error={(allow.error ?? remove.error) as Error} />}
    </section>
  );
}

function SetSecret({ name, onClose }: { name: string; onClose: () => void }) {
  const queries = useQueryClient();
  const [called, setCalled] = useState(name);
  const [value, setValue] = useState('');
  const set = useMutation({
    mutationFn: () => need(api.PUT('/api/secrets/{name}', { params: { path: { name: called } }, body: { value } })),
    onSuccess: async () => {
      onClose();
      await queries.invalidateQueries({ queryKey: ['secrets'] });
    },
  });
  return (
    <Modal opened onClose={onClose} title={name ? `Set ${name}` : 'Set a secret'}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          set.mutate();
        }}
      >
        {!name && (
          <TextInput label="Its name" value={called} onChange={(e) => setCalled(e.currentTarget.value)} mb="sm" />
        )}
        <PasswordInput
          label="The secret itself"
          autoComplete="off"
          value={value}
          onChange={(e) => setValue(e.currentTarget.value)}
        />
        {set.error && <Failure error={set.error} />}
        <Group mt="md">
          <Button type="submit" loading={set.isPending} disabled={called === '' || value === ''}>
            Set it
          </Button>
          <Button variant="default" onClick={onClose}>
            Not now
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
