import { Group, NativeSelect, Radio, TagsInput, TextInput } from '@mantine/core';
import type { AskedView } from '../../api/schema.gen';

/** Answers by field: `places.console-server`. */
export type Said = Record<string, string[]>;

/** Whether an answer is enough for what was asked. */
export const isEnough = (asked: AskedView, said: string[]) => said.length >= Math.max(asked.atLeast, 1);

/** Something that a sheet leaves open: one of what the estate has, several of it, or a person's own words. */
export function Question({
  asked,
  said,
  onSay,
}: {
  asked: AskedView;
  said: string[];
  onSay: (values: string[]) => void;
}) {
  const label = `${asked.asks.charAt(0).toUpperCase()}${asked.asks.slice(1).replace(/\?$/, '')}?`;
  const description = asked.field;
  if (asked.atMost > 1)
    return (
      <TagsInput
        label={label}
        description={`${description}, ${asked.atLeast} or more: type to search, Enter takes it`}
        data={asked.known}
        value={said}
        onChange={onSay}
        comboboxProps={{ withinPortal: false }}
        withScrollArea={false}
        styles={{ dropdown: { maxHeight: 240, overflowY: 'auto' } }}
        maw={560}
        mb="sm"
      />
    );
  // two answers are seen at a glance
  if (asked.known.length === 2)
    return (
      <Radio.Group
        label={label}
        description={description}
        value={said[0] ?? ''}
        onChange={(value) => onSay([value])}
        mb="sm"
      >
        <Group gap="lg" mt={4}>
          {asked.known.map((answer) => (
            <Radio key={answer} value={answer} label={answer} size="xs" />
          ))}
        </Group>
      </Radio.Group>
    );
  if (asked.known.length > 0)
    return (
      <NativeSelect
        label={label}
        description={description}
        data={['', ...asked.known]}
        value={said[0] ?? ''}
        onChange={(e) => onSay(e.currentTarget.value ? [e.currentTarget.value] : [])}
        maw={560}
        mb="sm"
      />
    );
  return (
    <TextInput
      label={label}
      description={description}
      value={said[0] ?? ''}
      onChange={(e) => onSay(e.currentTarget.value ? [e.currentTarget.value] : [])}
      maw={560}
      mb="sm"
    />
  );
}
