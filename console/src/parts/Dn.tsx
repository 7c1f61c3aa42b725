import { ActionIcon, CopyButton } from '@mantine/core';
import { Fragment } from 'react';

/** A distinguished name that wraps at its commas, with a button to copy it. */
export function Dn({ value }: { value: string }) {
  return (
    <span className="dn">
      <code>
        {value.split(/(?<!\\),/).map((part, i, all) => (
          <Fragment key={i}>
            {part}
            {i < all.length - 1 && (
              <>
                ,<wbr />
              </>
            )}
          </Fragment>
        ))}
      </code>
      <CopyButton value={value}>
        {({ copied, copy }) => (
          <ActionIcon
            variant="subtle"
            color="gray"
            size="xs"
            onClick={copy}
            aria-label={copied ? 'Copied' : `Copy ${value}`}
          >
            {copied ? '✓' : '⧉'}
          </ActionIcon>
        )}
      </CopyButton>
    </span>
  );
}
