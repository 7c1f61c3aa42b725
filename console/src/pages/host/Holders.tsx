import type { HostHolderView } from '../../api/schema.gen';

/** Who is on a list: names, with the SID where there is no name, and machines marked as such. */
export function Holders({ holders }: { holders: HostHolderView[] }) {
  if (holders.length === 0) return <span className="soft">nobody</span>;
  return (
    <>
      {holders.map((holder) => (
        <div key={holder.sid || holder.name} title={holder.sid}>
          <code>{holder.name}</code>
          {holder.machine && <span className="soft"> a computer account</span>}
          {!holder.known && <span className="soft"> no account or group known here</span>}
        </div>
      ))}
    </>
  );
}
