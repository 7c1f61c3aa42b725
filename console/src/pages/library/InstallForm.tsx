import { Button, TextInput } from '@mantine/core';
import { useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import type { InstallAskedView } from '../../api/schema.gen';
import { AccountNames } from './AccountNames';
import { DocumentEditor } from './DocumentEditor';
import { installText, type OwnNames } from './installText';
import './newInstall.css';
import { PlanBeside } from './PlanBeside';
import { isEnough, Question, type Said } from './Question';
import { usePlanOf } from './usePlanOf';

/** What a sheet leaves open, with the plan that the answers come to beside it; then the text. */
export function InstallForm({ asked }: { asked: InstallAskedView }) {
  const navigate = useNavigate();
  const [name, setName] = useState(asked.name);
  const [said, setSaid] = useState<Said>(() =>
    Object.fromEntries(asked.asked.flatMap((a) => (a.default === null ? [] : [[a.field, [a.default]]]))),
  );
  const [own, setOwn] = useState<OwnNames>({});
  const [text, setText] = useState<string | null>(null);
  const open = asked.asked.filter((a) => !isEnough(a, said[a.field] ?? []));
  const enough = open.length === 0 && name !== '';
  const plan = usePlanOf(enough ? installText(asked, name, said, own) : null);
  if (text !== null)
    return (
      <>
        <p>
          This is the install; change what you like, then add it.{' '}
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
    <div className="new-install">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          setText(installText(asked, name, said, own));
        }}
      >
        <TextInput
          label="A name for the install"
          description="One word of small letters, digits and hyphens"
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
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
        {plan.data?.plan && (
          <AccountNames estate={asked.estate} accounts={plan.data.plan.accounts} own={own} onOwn={setOwn} />
        )}
        <Button type="submit" disabled={!enough}>
          Show the install
        </Button>
        {open.length > 0 && <p className="soft">Still open: {open.map((a) => a.field).join(', ')}</p>}
      </form>
      <PlanBeside asked={enough} plan={plan.data?.plan ?? null} error={plan.error} />
    </div>
  );
}
