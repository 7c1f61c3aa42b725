import { PageTitle } from '../../parts/PageTitle';
import { DuePart } from './DuePart';
import { Misfits } from './Misfits';
import './start.css';
import { WaitingPart } from './WaitingPart';
import { WorsePart } from './WorsePart';

/** What is due, blocked, worse than at the last visit, or waits for somebody; each line leads to where it is done. */
export function StartPage() {
  return (
    <>
      <div className="head">
        <PageTitle>What needs you</PageTitle>
      </div>
      <div className="start">
        <div>
          <WaitingPart />
          <WorsePart />
        </div>
        <DuePart />
      </div>
      <Misfits />
    </>
  );
}
