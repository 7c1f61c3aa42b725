import { useVirtualizer } from '@tanstack/react-virtual';
import { type RefObject, useSyncExternalStore } from 'react';

/** How many rows are drawn all at once. */
const fewEnough = 40;

/** What a row of the matrix is taken for until it was measured, in pixels. */
const usualHeight = 96;

const paper = window.matchMedia('print');
const onPaper = (tell: () => void) => {
  paper.addEventListener('change', tell);
  return () => paper.removeEventListener('change', tell);
};

/**
 * The rows of a long table that are in sight, and the room that the others take before and after them; on paper all of them.
 *
 * @param frame - What scrolls.
 * @param keyOf - Tells rows apart, whatever their order.
 */
export function useRowsInSight(count: number, frame: RefObject<HTMLElement | null>, keyOf: (index: number) => string) {
  const printed = useSyncExternalStore(onPaper, () => paper.matches);
  const all = count <= fewEnough || printed;
  const virtual = useVirtualizer({
    count,
    enabled: !all,
    getScrollElement: () => frame.current,
    getItemKey: keyOf,
    estimateSize: () => usualHeight,
    overscan: 6,
  });
  const items = virtual.getVirtualItems();
  if (all) return { indices: Array.from({ length: count }, (_, i) => i), before: 0, after: 0, measure: null };
  return {
    indices: items.map((i) => i.index),
    before: items[0]?.start ?? 0,
    after: virtual.getTotalSize() - (items.at(-1)?.end ?? 0),
    measure: virtual.measureElement,
  };
}
