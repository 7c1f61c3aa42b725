import { Button, Group, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { createColumnHelper } from '@tanstack/react-table';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { sessions as sessionsQuery, tokens as tokensQuery } from '../../api/organizationQueries';
import { me } from '../../api/queries';
import type { NewTokenView, SessionView, TokenView } from '../../api/schema.gen';
import { CopyText } from '../../parts/CopyText';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { OnlyFor } from '../../parts/OnlyFor';
import { PageTitle } from '../../parts/PageTitle';
import { Time } from '../../parts/Time';
import { Revoke } from './Revoke';

const token = createColumnHelper<TokenView>();
const tokenColumns = [
  token.accessor('name', { header: 'Token' }),
  token.accessor((t) => t.person ?? '', { id: 'person', header: 'Person' }),
  token.accessor('role', { header: 'Role' }),
  token.accessor((t) => t.lastUsedAt ?? '', {
    id: 'used',
    header: 'Last used',
    cell: (c) => (c.getValue() ? <Time value={c.getValue()} /> : <span className="soft">never</span>),
  }),
  token.accessor('expiresAt', { header: 'Expires', cell: (c) => <Time value={c.getValue()} /> }),
  token.display({
    id: 'revoke',
    header: () => <span className="only-read">Revoke</span>,
    cell: (c) => (
      <Revoke
        what={`the token ${c.row.original.name}`}
        act={() => need(api.DELETE('/api/tokens/{name}', { params: { path: { name: c.row.original.name } } }))}
      />
    ),
  }),
];

const session = createColumnHelper<SessionView>();
const sessionColumns = [
  session.accessor('name', { header: 'Who' }),
  session.accessor('role', { header: 'Role' }),
  session.accessor('startedAt', { header: 'Signed in', cell: (c) => <Time value={c.getValue()} /> }),
  session.accessor('expiresAt', { header: 'Ends', cell: (c) => <Time value={c.getValue()} /> }),
  session.display({
    id: 'end',
    header: () => <span className="only-read">End</span>,
    cell: (c) => (
      <Revoke
        what={`the session of ${c.row.original.name}`}
        act={() => need(api.DELETE('/api/sessions/{id}', { params: { path: { id: `${c.row.original.id}` } } }))}
      />
    ),
  }),
];

/** Who and what may come in: tokens of the client and of programs, sessions of the console. */
export function TokensPage() {
  return (
    <OnlyFor role="owner" title="Tokens, sessions">
      <TokensAndSessions />
    </OnlyFor>
  );
}

function TokensAndSessions() {
  const tokens = useQuery(tokensQuery);
  const sessions = useQuery(sessionsQuery);
  return (
    <>
      <div className="head">
        <PageTitle>Tokens and sessions</PageTitle>
        <span className="soft">Who and what may come in?</span>
      </div>
      {tokens.isPending && <Loading />}
      {tokens.error && <Failure error={tokens.error} />}
      {tokens.data && (
        <>
          <MakeToken />
          <DataTable label="Tokens" rows={tokens.data} columns={tokenColumns} empty="There is no token." />
        </>
      )}
      <h2>Sessions</h2>
      {sessions.error && <Failure error={sessions.error} />}
      {sessions.data && (
        <DataTable label="Sessions" rows={sessions.data} columns={sessionColumns} empty="Nobody is signed in." />
      )}
    </>
  );
}

const roles = ['reader', 'planner', 'granter', 'owner'] as const;

function MakeToken() {
  const queries = useQueryClient();
  const who = useQuery(me);
  const [name, setName] = useState('');
  const [role, setRole] = useState<(typeof roles)[number]>('reader');
  const [days, setDays] = useState(90);
  const [made, setMade] = useState<NewTokenView | null>(null);
  const make = useMutation({
    mutationFn: () => need(api.POST('/api/tokens', { body: { name, role, days, person: null } })),
    onSuccess: (token) => {
      setMade(token);
      setName('');
      return queries.invalidateQueries({ queryKey: ['tokens'] });
    },
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        make.mutate();
      }}
    >
      <Group align="end" mb="sm">
        <TextInput label="A new token’s name" value={name} onChange={(e) => setName(e.currentTarget.value)} />
        <NativeSelect
          label="Role"
          data={[...roles]}
          value={role}
          onChange={(e) => setRole(roles.find((r) => r === e.currentTarget.value) ?? 'reader')}
        />
        <NumberInput label="Days" min={1} max={366} value={days} onChange={(value) => setDays(Number(value))} w={90} />
        <Button
          type="submit"
          variant="default"
          loading={make.isPending}
          disabled={name === '' || who.data?.role !== 'owner'}
        >
          Make it
        </Button>
      </Group>
      {make.error && <Failure error={make.error} />}
      <div role="status">
        {made && (
          <p>
            The token {made.name}, shown this once: <CopyText text={made.token} />
          </p>
        )}
      </div>
    </form>
  );
}
