/** A line of a comparison: there before only, there after only, or the same. */
export interface DiffLine {
  sign: '+' | '-' | ' ';
  text: string;
}

/** Compares two lists line by line, keeping their order, by the longest common subsequence. */
export function diffLines(before: string[], after: string[]): DiffLine[] {
  const width = after.length + 1;
  const lengths = new Uint32Array((before.length + 1) * width);
  const at = (i: number, j: number) => lengths[i * width + j] ?? 0;
  for (let i = before.length - 1; i >= 0; i--)
    for (let j = after.length - 1; j >= 0; j--)
      lengths[i * width + j] = before[i] === after[j] ? at(i + 1, j + 1) + 1 : Math.max(at(i + 1, j), at(i, j + 1));
  const lines: DiffLine[] = [];
  let [i, j] = [0, 0];
  while (i < before.length || j < after.length) {
    const [old, now] = [before[i], after[j]];
    if (old !== undefined && old === now) {
      lines.push({ sign: ' ', text: old });
      i++;
      j++;
    } else if (now !== undefined && (old === undefined || at(i, j + 1) >= at(i + 1, j))) {
      lines.push({ sign: '+', text: now });
      j++;
    } else {
      lines.push({ sign: '-', text: old ?? '' });
      i++;
    }
  }
  return lines;
}
