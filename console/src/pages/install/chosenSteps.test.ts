import { expect, it } from 'vitest';
import type { StepView } from '../../api/schema.gen';
import { allOf, withoutStep, withStep } from './chosenSteps';

const step = (number: number, hangsOn: number[] = [], blocked: string | null = null) =>
  ({ number, hangsOn, blocked }) as StepView;
/** 1 is an account, 2 a group, 3 puts one into the other, 4 hangs on 3; 5 cannot be made now, and 6 hangs on it. */
const steps = [step(1), step(2), step(3, [1, 2]), step(4, [3]), step(5, [], 'its owner does it'), step(6, [5])];
const numbers = (chosen: ReadonlySet<number>) => [...chosen].sort();

it('begins with all that can be made now', () => expect(numbers(allOf(steps))).toEqual([1, 2, 3, 4, 6]));

it('takes what a step hangs on with it', () => expect(numbers(withStep(steps, new Set(), 4))).toEqual([1, 2, 3, 4]));

it('leaves out what hangs on what is left out', () =>
  expect(numbers(withoutStep(steps, allOf(steps), 1))).toEqual([2, 6]));

it('never chooses what cannot be made', () => expect(numbers(withStep(steps, new Set(), 6))).toEqual([6]));

it('has nothing that hangs on something left out, whatever was clicked', () => {
  let chosen = allOf(steps);
  for (const [i, number] of [1, 3, 2, 4, 1, 4, 3, 2, 1].entries()) {
    chosen = i % 2 ? withStep(steps, chosen, number) : withoutStep(steps, chosen, number);
    for (const one of steps.filter((s) => chosen.has(s.number)))
      for (const before of one.hangsOn.filter((n) => n !== 5)) expect(chosen.has(before)).toBe(true);
  }
});
