import { Tooltip } from '@mantine/core';
import { ago, exact } from './times';
import './Time.css';
import { useNow } from './useNow';

/** How long ago, with the exact time and its zone on hover and focus. */
export function Time({ value }: { value: string }) {
  const now = useNow();
  return (
    <Tooltip label={exact(value)} events={{ hover: true, focus: true, touch: true }}>
      <time dateTime={value} tabIndex={0}>
        {ago(value, now)}
      </time>
    </Tooltip>
  );
}
