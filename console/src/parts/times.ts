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

/** A moment taken apart by the clock of a zone. */
function partsIn(value: string | number, zone: string): Record<string, string> {
  const format = new Intl.DateTimeFormat('en-US', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    timeZoneName: 'longOffset',
  });
  return Object.fromEntries(format.formatToParts(new Date(value)).map((p) => [p.type, p.value]));
}

/** The day in a zone: `2026-11-25`. */
export function dayIn(value: string | number, zone: string): string {
  const { year, month, day } = partsIn(value, zone);
  return `${year}-${month}-${day}`;
}

/** The time of day in a zone: `13:00:05`. */
export function clockIn(value: string | number, zone: string): string {
  const { hour, minute, second } = partsIn(value, zone);
  return `${hour}:${minute}:${second}`;
}

/** The exact time in a zone, with its offset from UTC [ISO 8601]: `2026-11-25 13:00:05 +01:00`. */
export function exactIn(value: string | number, zone: string): string {
  const offset = (partsIn(value, zone).timeZoneName ?? '').replace('GMT', '') || '+00:00';
  return `${dayIn(value, zone)} ${clockIn(value, zone)} ${offset}`;
}
