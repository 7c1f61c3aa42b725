import type { KeyboardEvent } from 'react';

const arrows: Record<string, [row: number, column: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** Arrows walk the matrix: up and down over the rights of a column, left and right to the nearest right of the next column. */
export function moveFocus(event: KeyboardEvent<HTMLTableElement>) {
  const move = arrows[event.key];
  const from = (event.target as HTMLElement).closest<HTMLElement>('td button');
  if (!move || !from) return;
  const cell = from.closest('td');
  const table = event.currentTarget;
  if (!cell) return;
  const inColumn = (index: number) =>
    [...table.querySelectorAll<HTMLTableRowElement>('tbody tr')].flatMap((row) => [
      ...(row.cells[index]?.querySelectorAll<HTMLElement>('button') ?? []),
    ]);
  let target: HTMLElement | undefined;
  if (move[0] !== 0) {
    const column = inColumn(cell.cellIndex);
    target = column[column.indexOf(from) + move[0]];
  } else {
    const top = from.getBoundingClientRect().top;
    const distance = (e: HTMLElement) => Math.abs(e.getBoundingClientRect().top - top);
    const last = table.querySelectorAll('thead th').length;
    for (let index = cell.cellIndex + move[1]; index > 0 && index < last && !target; index += move[1])
      target = inColumn(index).sort((a, b) => distance(a) - distance(b))[0];
  }
  if (!target) return;
  event.preventDefault();
  target.focus();
}
