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
      <Copy value={value} what={value} />
    </span>
  );
}

/** A button that copies a text. */
export function Copy({ value, what }: { value: string; what: string }) {
  return (
    <CopyButton value={value}>
      {({ copied, copy }) => (
        <ActionIcon
          variant="subtle"
          color="gray"
          size="xs"
          onClick={copy}
          aria-label={copied ? 'Copied' : `Copy ${what}`}
        >
          {copied ? '✓' : <TwoSheets />}
        </ActionIcon>
      )}
    </CopyButton>
  );
}

/** Two sheets, one over the other; drawn, since few fonts have the sign. */
function TwoSheets() {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" fill="none" stroke="currentColor" aria-hidden="true">
      <rect x="0.5" y="2.5" width="8" height="9" />
      <path d="M3.5 2.5v-2h8v9h-3" />
    </svg>
  );
}
