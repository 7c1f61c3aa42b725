import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { asked as askedQuery, sheets as sheetsQuery } from '../../api/libraryQueries';
import { estates as estatesQuery } from '../../api/queries';
import type { InstallAskedView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';
import { DocumentEditor } from './DocumentEditor';
import { installText } from './installText';
import { isEnough, Question, type Said } from './Question';

const route = getRouteApi('/frame/new-install');

/** One product in one estate, by steps: which, where, and what the sheet leaves open; then its text, and what it comes to. */
export function NewInstallPage() {
  const search = route.useSearch();
  const navigate = route.useNavigate();
  const sheets = useQuery(sheetsQuery);
  const estates = useQuery(estatesQuery);
  const error = sheets.error ?? estates.error;
  return (
    <>
      <div className="head">
        <PageTitle>New install</PageTitle>
        <span className="soft">One product in one estate: just what its sheet leaves open is asked.</span>
      </div>
      {(sheets.isPending || estates.isPending) && <Loading />}
      {error && <Failure error={error} />}
      {sheets.data?.length === 0 && (
        <p className="empty">
          There is no sheet yet. <Link to="/new-sheet">Make one from a vendor’s table</Link>, or{' '}
          <Link to="/add/$kind" params={{ kind: 'sheet' }}>
            write one
          </Link>
          .
        </p>
      )}
      {estates.data?.length === 0 && (
        <p className="empty">
          There is no estate yet.{' '}
          <Link to="/add/$kind" params={{ kind: 'estate' }}>
            Add yours
          </Link>
          .
        </p>
      )}
      <div className="head">
        <NativeSelect
          label="The product"
          data={['', ...(sheets.data?.map((s) => s.name) ?? [])]}
          value={search.sheet ?? ''}
          onChange={(e) => void navigate({ search: { ...search, sheet: e.currentTarget.value } })}
        />
        <NativeSelect
          label="The estate"
          data={['', ...(estates.data?.map((e) => e.name) ?? [])]}
          value={search.estate ?? ''}
          onChange={(e) => void navigate({ search: { ...search, estate: e.currentTarget.value } })}
        />
      </div>
      {search.sheet && search.estate && (
        <Answers key={`${search.sheet} ${search.estate}`} sheet={search.sheet} estate={search.estate} />
      )}
    </>
  );
}

function Answers({ sheet, estate }: { sheet: string; estate: string }) {
  const asked = useQuery(askedQuery(sheet, estate));
  if (asked.isPending) return <Loading />;
  if (asked.error) return <Failure error={asked.error} />;
  return <Form asked={asked.data} />;
}

function Form({ asked }: { asked: InstallAskedView }) {
  const navigate = useNavigate();
  const [name, setName] = useState(asked.name);
  const [said, setSaid] = useState<Said>(() =>
    Object.fromEntries(asked.asked.flatMap((a) => (a.default === null ? [] : [[a.field, [a.default]]]))),
  );
  const [text, setText] = useState<string | null>(null);
  const open = asked.asked.filter((a) => !isEnough(a, said[a.field] ?? []));
  if (text !== null)
    return (
      <>
        <p>
          This is the install. Give names of its own, take existing accounts, or leave it as it is; then add it. Its
          plan is shown before anything is read.{' '}
          <Button size="compact-sm" variant="default" onClick={() => setText(null)}>
            Back to the questions
          </Button>
        </p>
        <DocumentEditor
          kind="install"
          name=""
          text={text}
          onSaved={(saved) =>
            void navigate({ to: '/installs/$name', params: { name: saved }, search: { tab: 'plan' } })
          }
        />
      </>
    );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        setText(installText(asked, name, said));
      }}
    >
      <TextInput
        label="A name for the install"
        description="One word of small letters, digits and hyphens"
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
        maw={560}
        mb="sm"
      />
      {asked.asked.map((a) => (
        <Question
          key={a.field}
          asked={a}
          said={said[a.field] ?? []}
          onSay={(values) => setSaid((s) => ({ ...s, [a.field]: values }))}
        />
      ))}
      <Button type="submit" disabled={open.length > 0 || name === ''}>
        Show the install
      </Button>
      {open.length > 0 && <p className="soft">Still open: {open.map((a) => a.field).join(', ')}</p>}
    </form>
  );
}
