import './CopyText.css';
import { CopyButton } from '@mantine/core';

/** A line to be typed elsewhere; a click copies it. */
export function CopyText({ text }: { text: string }) {
  return (
    <CopyButton value={text}>
      {({ copied, copy }) => (
        <button type="button" className="copy" onClick={copy} title="Copy">
          <code>{text}</code>
          <span aria-live="polite">{copied ? ' copied' : ''}</span>
        </button>
      )}
    </CopyButton>
  );
}
