import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { useState } from 'react';
import { negated, partsOf, withPart } from './parts';

interface Props {
  family: string;
  filter: string;
  onChange: (filter: string) => void;
}

/** Adds parts to a filter, each value escaped, for whoever does not write filters by heart. */
export function FilterBuilder({ family, filter, onChange }: Props) {
  const parts = partsOf(family);
  const [label, setLabel] = useState('');
  const [value, setValue] = useState('');
  const part = parts.find((p) => p.label === label) ?? parts[0];
  if (!part) return null;
  const add = () => {
    onChange(withPart(filter, part.text(value)));
    setValue('');
  };
  return (
    <Group align="flex-end" gap="sm" mt="sm">
      <NativeSelect
        label="Add a condition"
        data={parts.map((p) => p.label)}
        value={part.label}
        onChange={(e) => setLabel(e.currentTarget.value)}
        w={280}
      />
      {part.asks && (
        <TextInput label={part.asks} value={value} onChange={(e) => setValue(e.currentTarget.value)} w={420} />
      )}
      <Button variant="default" onClick={add} disabled={part.asks !== null && value.trim() === ''}>
        Add
      </Button>
      <Button variant="default" onClick={() => onChange(negated(filter))} disabled={filter.trim() === ''}>
        The opposite
      </Button>
    </Group>
  );
}
