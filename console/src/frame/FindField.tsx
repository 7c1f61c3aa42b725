import { TextInput } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useLocation, useNavigate } from '@tanstack/react-router';
import { useRef, useState } from 'react';

/** One search over everything, from every page: the slash key goes to it, and what it finds is the page Find. */
export function FindField() {
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  // what is looked for stands in the address, so that it can be passed on
  const words = pathname === '/find' ? (search.words ?? '') : '';
  // while one types, what was typed counts: the address comes after it
  const [typed, setTyped] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useHotkeys([['/', () => field.current?.focus()]]);
  return (
    <TextInput
      ref={field}
      className="find-field"
      size="xs"
      aria-label="Find"
      placeholder="Find an account, host, group, install, page … (/)"
      value={typed ?? words}
      onFocus={() => setTyped(words)}
      onBlur={() => setTyped(null)}
      onChange={(e) => {
        setTyped(e.currentTarget.value);
        void navigate({
          to: '/find',
          search: { words: e.currentTarget.value },
          replace: pathname === '/find',
        });
      }}
      onKeyDown={(e) => {
        if (e.key === 'Enter' && typed)
          void navigate({ to: '/find', search: { words: typed, go: true }, replace: pathname === '/find' });
        if (e.key === 'Escape') field.current?.blur();
      }}
    />
  );
}
