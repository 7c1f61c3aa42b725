import { Button, Group, Modal } from '@mantine/core';
import { useState } from 'react';
import type { RemedyView, TraceFailureView, TraceView } from '../../api/schema.gen';
import { Dn } from '../../parts/Dn';
import { Time } from '../../parts/Time';
import { BranchTree } from './BranchTree';
import { Remedy } from './Remedy';
import { Simulated } from '../../parts/Simulated';

interface Props {
  trace: TraceView;
  may: boolean;
  onFix: (remedy: string) => void;
}

/** The answer: counts, the tree, and each reason with what would fix it. */
export function TraceAnswer({ trace, may, onFix }: Props) {
  const [asked, setAsked] = useState<RemedyView | null>(null);
  const real = trace.supposed.length === 0;
  return (
    <section aria-label="Answer">
      <div className="head">
        <h2>{trace.words}</h2>
        <Simulated of={trace.simulated} />
        <span className="grow" />
        <span className="soft">
          read from {trace.readFrom} <Time value={trace.readAt} />
        </span>
      </div>
      <p>
        <code>{trace.account}</code>: {trace.asked}
      </p>
      {trace.supposed.map((s) => (
        <p key={s}>Supposed {s}: it is not so now.</p>
      ))}
      <div className="trace-columns">
        <BranchTree tree={trace.tree} of={trace.of} />
        <div>
          {trace.failures.map((failure) => (
            <Refusal key={failure.number} failure={failure} trace={trace.id} may={may && real} onFix={setAsked} />
          ))}
          <Names title="Not found, or not visible" names={trace.notFound} />
          <Names title={`A new ${trace.of} would refuse it in`} names={trace.uncovered} />
          {trace.unread.length > 0 && <h3>Could not be read</h3>}
          {trace.unread.map((u) => (
            <p key={u.place}>
              <Dn value={u.place} /> {u.reason}
            </p>
          ))}
        </div>
      </div>
      <Modal
        opened={asked !== null}
        onClose={() => setAsked(null)}
        size="xl"
        title={`Carry out: ${asked?.steps.length ?? 0} ${asked?.steps.length === 1 ? 'change' : 'changes'}`}
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        {trace.simulated && (
          <p>
            <span className="tag">simulated</span> These change the simulation only.
          </p>
        )}
        <ol>
          {asked?.steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
        <p className="soft">Each one is logged before it is made and checked afterwards. It can be undone.</p>
        <Group justify="flex-end">
          <Button variant="default" onClick={() => setAsked(null)} data-autofocus>
            Cancel
          </Button>
          <Button
            onClick={() => {
              if (asked) onFix(asked.id);
              setAsked(null);
            }}
          >
            Make {asked?.steps.length === 1 ? 'this change' : 'these changes'}
          </Button>
        </Group>
      </Modal>
    </section>
  );
}

interface RefusalProps {
  failure: TraceFailureView;
  trace: string;
  may: boolean;
  onFix: (remedy: RemedyView) => void;
}

function Refusal({ failure, trace, may, onFix }: RefusalProps) {
  return (
    <article className="refusal">
      <p>
        <strong>
          {failure.count} {failure.count === 1 ? 'object' : 'objects'}:
        </strong>{' '}
        {failure.words}.
      </p>
      <details>
        <summary>
          Which {failure.count === 1 ? 'object' : 'objects'} {failure.count === 1 ? 'fails' : 'fail'}
        </summary>
        <ul className="objects">
          {failure.objects.map((dn) => (
            <li key={dn}>
              <Dn value={dn} />
            </li>
          ))}
          {failure.count > failure.objects.length && <li>and {failure.count - failure.objects.length} more</li>}
        </ul>
      </details>
      {failure.remedies.map((remedy) => (
        <Remedy key={remedy.id} remedy={remedy} trace={trace} may={may} onFix={() => onFix(remedy)} />
      ))}
    </article>
  );
}

function Names({ title, names }: { title: string; names: string[] }) {
  if (names.length === 0) return null;
  return (
    <>
      <h3>{title}</h3>
      <ul className="objects">
        {names.map((name) => (
          <li key={name}>{name.includes('=') ? <Dn value={name} /> : <code>{name}</code>}</li>
        ))}
      </ul>
    </>
  );
}
