import { useSyncExternalStore } from 'react';

const every = 15_000;
let now = Date.now();

function subscribe(tell: () => void) {
  const timer = setInterval(() => {
    now = Date.now();
    tell();
  }, every);
  return () => clearInterval(timer);
}

/** The present, as of the last quarter of a minute, so that "3 minutes ago" stays true on a page left open. */
export function useNow(): number {
  return useSyncExternalStore(subscribe, () => now);
}
