import { CloseButton } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useEffect, useRef } from 'react';
import type { JobView, JudgementView, MatrixView } from '../../api/schema.gen';
import { PersonsWord } from './PersonsWord';
import { RightActs } from './RightActs';
import { RightFacts } from './RightFacts';

interface Props {
  right: JudgementView;
  matrix: MatrixView;
  follow: (run: JobView) => void;
  onClose: () => void;
}

/** Everything known of one right, and what can be done about it; it stands beside the matrix and never over it. */
export function RightPanel({ right, matrix, follow, onClose }: Props) {
  const panel = useRef<HTMLElement>(null);
  const from = useRef<Element>(null);
  useEffect(() => {
    from.current = document.activeElement;
    panel.current?.focus({ preventScroll: true });
    return () => (from.current as HTMLElement | null)?.focus({ preventScroll: true });
  }, [right.id]);
  useHotkeys([['Escape', onClose]], []);
  return (
    <section
      ref={panel}
      role="dialog"
      aria-label={`${right.right} on ${right.place}`}
      tabIndex={-1}
      className="matrix-panel"
    >
      <div className="head">
        <h2>
          {right.right} on {right.place}
        </h2>
        <span className="grow" />
        <CloseButton aria-label="Close" onClick={onClose} />
      </div>
      <RightFacts right={right} estate={matrix.estate} />
      {right.confirmable && (
        <PersonsWord
          key={right.id}
          install={matrix.install}
          right={right}
          asked={right.confirmable}
          title={matrix.title}
        />
      )}
      <RightActs right={right} matrix={matrix} follow={follow} />
    </section>
  );
}
