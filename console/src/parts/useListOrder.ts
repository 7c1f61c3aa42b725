import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';

/** Which page of a list is asked of the service. */
export interface ListOrder {
  search?: string;
  /** A column; with a minus before it, from its end. */
  sort?: string;
  skip: number;
  take: number;
}

/** How many rows the service tells at most. */
export const mostTaken = 500;

/** How many rows a page has. */
export const pageSize = 50;

/** What a table does where the service searches, sorts and pages: it shows what is asked for, and asks. */
export interface Asking {
  /** What the query asks for; what is typed is asked for when the typing rests. */
  order: ListOrder;
  text: string;
  onText: (text: string) => void;
  onSort: (sort: string | undefined) => void;
  onSkip: (skip: number) => void;
}

/** Keeps what is asked for. Looking for something else, or in another order, begins at the first page. */
export function useListOrder(sort?: string): Asking {
  const [text, setText] = useState('');
  const [search] = useDebouncedValue(text, 250);
  const [asked, setAsked] = useState({ sort, skip: 0 });
  return {
    order: {
      skip: search === text ? asked.skip : 0,
      take: pageSize,
      ...(search ? { search } : {}),
      ...(asked.sort ? { sort: asked.sort } : {}),
    },
    text,
    onText: (next) => {
      setText(next);
      setAsked((a) => ({ ...a, skip: 0 }));
    },
    onSort: (next) => setAsked({ sort: next, skip: 0 }),
    onSkip: (skip) => setAsked((a) => ({ ...a, skip })),
  };
}
