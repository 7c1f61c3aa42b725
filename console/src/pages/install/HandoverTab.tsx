import { Button, Group, SegmentedControl } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { handovers as handoversQuery } from '../../api/queries';
import type { HandoverView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { FactsReturned } from './FactsReturned';
import { Simulated } from '../../parts/Simulated';

/** What each team is asked to do at each place, as bundles to send away; and host facts that come back. */
export function HandoverTab({ name, estate }: { name: string; estate: string }) {
  const [what, setWhat] = useState('give');
  const handovers = useQuery(handoversQuery(name, what === 'remove'));
  return (
    <>
      <div className="head">
        <SegmentedControl
          aria-label="What is handed over"
          value={what}
          onChange={setWhat}
          data={[
            { value: 'give', label: 'To give' },
            { value: 'remove', label: 'To take away' },
          ]}
        />
        <span className="grow" />
        <FactsReturned estate={estate} install={name} />
      </div>
      {handovers.isPending && <Loading />}
      {handovers.error && <Failure error={handovers.error} />}
      {handovers.data?.length === 0 && (
        <p className="empty">{what === 'give' ? 'Nothing left to grant.' : 'Nothing to remove.'}</p>
      )}
      {handovers.data?.map((handover) => (
        <Bundle key={handover.folder} install={name} handover={handover} />
      ))}
    </>
  );
}

/** One bundle: what is asked, why, and the files to send. */
function Bundle({ install, handover }: { install: string; handover: HandoverView }) {
  const file = (form: string) =>
    `/api/installs/${encodeURIComponent(install)}/handovers/${encodeURIComponent(handover.folder)}?form=${form}`;
  return (
    <section className="bundle" aria-label={`${handover.team} team, ${handover.place}`}>
      <div className="head">
        <h2>
          {handover.place} <span className="soft">the {handover.team} team</span>
        </h2>
        <Simulated of={handover.simulated} />
        <span className="grow" />
        <Group gap="xs">
          <Button component="a" variant="subtle" href={file('page')} target="_blank" rel="noreferrer">
            Page
          </Button>
          <Button component="a" variant="subtle" href={file('markdown')} download={`${handover.folder}.md`}>
            Markdown
          </Button>
          <Button component="a" variant="subtle" href={file('csv')} download={`${handover.folder}.csv`}>
            CSV
          </Button>
          <Button component="a" variant="default" href={file('zip')} download={`${handover.folder}.zip`}>
            Bundle
          </Button>
        </Group>
      </div>
      <ol>
        {handover.steps.map((step) => (
          <li key={step.number} value={Number(step.number)}>
            <code>{step.words}</code>
            <div className="soft">
              {step.why} ({step.at})
            </div>
            {step.least.map((least) => (
              <div key={least} className="soft">
                least privilege: {least}
              </div>
            ))}
            {step.details.map((detail) => (
              <div key={detail}>{detail}</div>
            ))}
            {step.note && <div>note: {step.note}</div>}
          </li>
        ))}
      </ol>
      <details>
        <summary>How to carry it out and undo it</summary>
        <ol>
          {handover.howTo.map((how) => (
            <li key={how}>{how}</li>
          ))}
        </ol>
        <p>To undo it, in this order:</p>
        <ol>
          {handover.undo.map((undo) => (
            <li key={undo}>
              <code>{undo}</code>
            </li>
          ))}
        </ol>
        <p className="soft">In the bundle: {handover.files.join(', ')}</p>
      </details>
    </section>
  );
}
