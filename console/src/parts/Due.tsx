import { Time } from './Time';
import { dayIn } from './times';
import { useZone } from './useZone';

/** A day to come, with how long until it is over; the day of the moment by the organization's clock, unless it is said. */
export function Due({ value, day }: { value: string; day?: string | null }) {
  const zone = useZone();
  return (
    <span className="nowrap">
      {day ?? dayIn(value, zone)}{' '}
      <span className="soft">
        <Time value={value} />
      </span>
    </span>
  );
}
