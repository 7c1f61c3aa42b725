import type { StepView } from '../../api/schema.gen';

/** Steps that are chosen, by their numbers. */
export type Chosen = ReadonlySet<number>;

/** The steps that can be made now. */
export const ready = (steps: StepView[]): StepView[] => steps.filter((s) => s.blocked === null);

/** All that can be made now. */
export const allOf = (steps: StepView[]): Chosen => new Set(ready(steps).map((s) => s.number));

/** One more chosen, with those that it hangs on: without them it cannot be made. */
export function withStep(steps: StepView[], chosen: Chosen, number: number): Chosen {
  const more = new Set(chosen);
  const add = (one: number) => {
    const step = ready(steps).find((s) => s.number === one);
    if (!step || more.has(one)) return;
    more.add(one);
    step.hangsOn.forEach(add);
  };
  add(number);
  return more;
}

/** One left out, with those that hang on it. */
export function withoutStep(steps: StepView[], chosen: Chosen, number: number): Chosen {
  const fewer = new Set(chosen);
  const drop = (one: number) => {
    if (!fewer.delete(one)) return;
    steps.filter((s) => s.hangsOn.includes(one)).forEach((s) => drop(s.number));
  };
  drop(number);
  return fewer;
}
