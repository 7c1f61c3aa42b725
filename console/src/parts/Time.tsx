import { Tooltip } from '@mantine/core';
import { ago, exactIn } from './times';
import './Time.css';
import { useNow } from './useNow';
import { useZone } from './useZone';

/** How long ago, with the exact time on hover and focus. */
export function Time({ value }: { value: string }) {
  const now = useNow();
  const zone = useZone();
  return (
    <Tooltip label={exactIn(value, zone)} events={{ hover: true, focus: true, touch: true }}>
      <time dateTime={value} data-exact={exactIn(value, zone)} tabIndex={0}>
        {ago(value, now)}
      </time>
    </Tooltip>
  );
}

/** The exact time. */
export function ExactTime({ value }: { value: string }) {
  return <time dateTime={value}>{exactIn(value, useZone())}</time>;
}

/** Until when something counts: the day that was named, or else the moment at which it ends. */
export function Until({ ends }: { ends: { lastDay?: string | null; until: string } }) {
  return ends.lastDay ?? <ExactTime value={ends.until} />;
}
