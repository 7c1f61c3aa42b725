import { useEffect, useRef } from 'react';

let shown = 0;

/**
 * The heading of a page, which is the name of the browser's tab too. Who comes from another page begins here: the focus is led
 * to it, unless the page put it somewhere itself.
 */
export function PageTitle({ children }: { children: string }) {
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (shown++ > 0 && (document.activeElement === document.body || document.activeElement?.closest('nav')))
      head.current?.focus({ preventScroll: true });
  }, []);
  return (
    <h1 ref={head} tabIndex={-1}>
      <title>{`${children} · Just Right`}</title>
      {children}
    </h1>
  );
}
