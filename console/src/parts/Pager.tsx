import { Button } from '@mantine/core';

interface Props {
  skipped: number;
  shown: number;
  total: number;
  take: number;
  onSkip: (skip: number) => void;
}

/** How much of how much is shown, and the ways to the rest. */
export function Pager({ skipped, shown, total, take, onSkip }: Props) {
  if (total <= shown && skipped === 0) return null;
  return (
    <div className="head">
      <span className="soft" role="status">
        {shown === 0 ? `None of ${total} from here on` : `${skipped + 1} to ${skipped + shown} of ${total}`}
      </span>
      <Button variant="default" disabled={skipped === 0} onClick={() => onSkip(Math.max(0, skipped - take))}>
        Earlier page
      </Button>
      <Button variant="default" disabled={skipped + shown >= total} onClick={() => onSkip(skipped + take)}>
        Next page
      </Button>
    </div>
  );
}
