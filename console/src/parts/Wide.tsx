import { useEffect, useRef, useState } from 'react';

/** What may be wider than the page scrolls within itself; whoever scrolls by keyboard can go there when there is something to scroll. */
export function Wide({ children }: { children: React.ReactNode }) {
  const frame = useRef<HTMLDivElement>(null);
  const [scrolls, setScrolls] = useState(false);
  useEffect(() => {
    const of = frame.current;
    if (!of) return;
    const look = new ResizeObserver(() => setScrolls(of.scrollWidth > of.clientWidth));
    look.observe(of);
    if (of.firstElementChild) look.observe(of.firstElementChild);
    return () => look.disconnect();
  }, []);
  return (
    <div ref={frame} className="table-frame" tabIndex={scrolls ? 0 : undefined}>
      {children}
    </div>
  );
}
