/** How long before now, or after it, in words. */
export function ago(value: string, now: number): string {
  const past = Math.round((now - Date.parse(value)) / 1000);
  const seconds = Math.abs(past);
  if (seconds < 60) return 'just now';
  const steps: [number, string][] = [
    [86_400, 'day'],
    [3_600, 'hour'],
    [60, 'minute'],
  ];
  for (const [length, word] of steps) {
    const count = Math.floor(seconds / length);
    if (count > 0)
      return past > 0
        ? `${count} ${word}${count === 1 ? '' : 's'} ago`
        : `in ${count} ${word}${count === 1 ? '' : 's'}`;
  }
  return 'just now';
}

/** The exact local time with its offset from UTC. */
export function exact(value: string): string {
  return new Date(value).toLocaleString('en-US', {
    dateStyle: 'medium',
    timeStyle: 'long',
  });
}

/** Until when something counts: the day that was named, or else the moment at which it ends. */
export function untilWords(ends: { lastDay?: string | null; until: string }): string {
  return ends.lastDay ?? exact(ends.until);
}
