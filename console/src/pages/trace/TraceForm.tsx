import { Button, Collapse, Group, NativeSelect, SimpleGrid, TagsInput, Textarea, TextInput } from '@mantine/core';
import { useState } from 'react';
import { acts, namesAttributes, type TraceFields } from './order';
import { useMay } from '../../parts/useMay';

interface Props {
  initial: TraceFields;
  estates: string[];
  branches: string[];
  busy: boolean;
  onTrace: (fields: TraceFields) => void;
}

/** Asks who, what and where. What is seldom needed lies under one button. */
export function TraceForm({ initial, estates, branches, busy, onTrace }: Props) {
  const may = useMay('planner');
  const [fields, setFields] = useState<TraceFields>(initial);
  const [typed, setTyped] = useState('');
  const seldom = [
    fields.of !== 'user' && fields.of,
    fields.service,
    fields.host,
    fields.objects,
    fields.member,
    fields.inheriting,
  ];
  const [more, setMore] = useState(seldom.some((f) => f));
  const set = (key: keyof TraceFields) => (e: { currentTarget: { value: string } }) => {
    const value = e.currentTarget.value;
    setFields((f) => ({ ...f, [key]: value }));
  };
  const act = fields.act ?? 'write attributes';
  const submit = (e: React.FormEvent) => {
    e.preventDefault();
    const attributes = [...(fields.attributes ?? []), ...(typed.trim() ? [typed.trim()] : [])];
    setTyped('');
    setFields((f) => ({ ...f, attributes }));
    onTrace({ ...fields, act, attributes });
  };
  return (
    <form onSubmit={submit} aria-label="Trace">
      <Group align="flex-end" gap="sm" wrap="wrap">
        {estates.length > 1 && (
          <NativeSelect label="In" data={estates} value={fields.estate ?? ''} onChange={set('estate')} />
        )}
        <TextInput label="Can" placeholder="svc-…" value={fields.account ?? ''} onChange={set('account')} w={170} />
        <NativeSelect label="do this" data={acts} value={act} onChange={set('act')} w={160} />
        {namesAttributes(act) && (
          <TagsInput
            label="to these"
            placeholder={fields.attributes?.length ? '' : 'attribute'}
            value={fields.attributes ?? []}
            searchValue={typed}
            onSearchChange={setTyped}
            onChange={(attributes) => setFields((f) => ({ ...f, attributes }))}
            w={420}
          />
        )}
        <TextInput
          label="below"
          list="trace-branches"
          placeholder="as in its need"
          value={fields.below ?? ''}
          onChange={set('below')}
          w={240}
        />
        <datalist id="trace-branches">
          {[...branches, 'everywhere'].map((b) => (
            <option key={b} value={b} />
          ))}
        </datalist>
        <Button type="submit" loading={busy} disabled={!may}>
          Trace
        </Button>
        <Button variant="subtle" aria-expanded={more} onClick={() => setMore(!more)}>
          {more ? 'Less' : 'More'}
        </Button>
      </Group>
      <Collapse expanded={more}>
        <SimpleGrid cols={3} mt="sm" spacing="sm">
          <div>
            <TextInput label="The class of object" placeholder="user" value={fields.of ?? ''} onChange={set('of')} />
            <TextInput
              label="The service that fails, instead of the account"
              value={fields.service ?? ''}
              onChange={set('service')}
            />
            <TextInput label="Its host" value={fields.host ?? ''} onChange={set('host')} />
          </div>
          <Textarea
            label="Objects that fail, instead of a branch: one per line"
            rows={6}
            value={fields.objects ?? ''}
            onChange={set('objects')}
          />
          <div>
            <Textarea
              label="As if it were in these groups: one per line"
              rows={2}
              value={fields.member ?? ''}
              onChange={set('member')}
            />
            <Textarea
              label="As if inheritance were enabled here: one per line"
              rows={2}
              value={fields.inheriting ?? ''}
              onChange={set('inheriting')}
            />
          </div>
        </SimpleGrid>
      </Collapse>
    </form>
  );
}
