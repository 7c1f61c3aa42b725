import { Time } from './Time';

/** A day to come, with how long until then. */
export function Due({ value }: { value: string }) {
  return (
    <span className="nowrap">
      {value.slice(0, 10)}{' '}
      <span className="soft">
        <Time value={value} />
      </span>
    </span>
  );
}
