/** An account, machine or group that holds something. */
export function Who({ who, machine }: { who: string; machine: boolean }) {
  return (
    <>
      <code>{who}</code>
      {machine && <span className="soft"> a computer account</span>}
    </>
  );
}
