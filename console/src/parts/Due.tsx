import { Time } from './Time';

/** A day to come, with how long until it is over; the day of the moment, unless it is said. */
export function Due({ value, day }: { value: string; day?: string | null }) {
  return (
    <span className="nowrap">
      {day ?? value.slice(0, 10)}{' '}
      <span className="soft">
        <Time value={value} />
      </span>
    </span>
  );
}
