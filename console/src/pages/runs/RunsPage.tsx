import { RunList } from './RunList';
import { PageTitle } from '../../parts/PageTitle';

/** What was carried out, and what still waits for somebody. */
export function RunsPage() {
  return (
    <>
      <div className="head">
        <PageTitle>Runs</PageTitle>
        <span className="soft">What was carried out, newest first.</span>
      </div>
      <RunList empty="Nothing was carried out yet." />
    </>
  );
}
