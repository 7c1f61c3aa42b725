import type { UnreadPartView } from '../api/schema.gen';

/** What could not be read of a place, each part with its reason. */
export function UnreadParts({ unread, parts }: { unread: string | null; parts: UnreadPartView[] }) {
  return (
    <>
      {unread && <p className="empty">Nothing of it could be read: {unread}</p>}
      {parts.length > 0 && (
        <ul aria-label="Could not be read">
          {parts.map((part) => (
            <li key={part.place}>
              ? {part.place} could not be read: {part.reason}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
