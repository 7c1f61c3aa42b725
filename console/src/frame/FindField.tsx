import { TextInput } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useLocation, useNavigate } from '@tanstack/react-router';
import { useRef } from 'react';

/** One search over everything, from every page: the slash key goes to it, and what it finds is the page Find. */
export function FindField() {
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  // what is looked for stands in the address, so that it can be passed on
  const words = pathname === '/find' ? (search.words ?? '') : '';
  const field = useRef<HTMLInputElement>(null);
  useHotkeys([['/', () => field.current?.focus()]]);
  return (
    <TextInput
      ref={field}
      className="find-field"
      size="xs"
      aria-label="Find"
      placeholder="Find an account, host, group, install, page … (/)"
      value={words}
      onChange={(e) => {
        void navigate({
          to: '/find',
          search: { words: e.currentTarget.value },
          replace: pathname === '/find',
        });
      }}
      onKeyDown={(e) => {
        if (e.key === 'Enter') document.querySelector<HTMLAnchorElement>('#found a')?.click();
        if (e.key === 'Escape') field.current?.blur();
      }}
    />
  );
}
