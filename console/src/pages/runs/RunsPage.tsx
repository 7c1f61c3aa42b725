import { RunList } from './RunList';

/** What was carried out, and what still waits for somebody. */
export function RunsPage() {
  return (
    <>
      <div className="head">
        <h1>Runs</h1>
        <span className="soft">What was carried out, newest first.</span>
      </div>
      <RunList empty="Nothing was carried out yet." />
    </>
  );
}
