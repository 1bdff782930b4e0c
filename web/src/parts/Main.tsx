import { useEffect, useRef, type HTMLAttributes, type ReactNode } from "react";

/** Where the page was opened, or what was gone to last: the work there has the focus. */
let place = window.location.pathname;

/**
 * The work of a place. Whoever comes from another place by a link or a key finds the
 * focus here, unless a field asks for it.
 */
export function Main({
  title,
  at = title,
  children,
  ...rest
}: HTMLAttributes<HTMLElement> & {
  /** What the window is called while this is shown. */
  title: string;
  /** What tells this place from others, where its title changes while one stays there. */
  at?: string;
  children?: ReactNode;
}) {
  const box = useRef<HTMLElement>(null);
  useEffect(() => {
    document.title = title ? `${title} · Tussock` : "Tussock";
  }, [title]);
  useEffect(() => {
    const here = window.location.pathname;
    const came = here !== place;
    place = here;
    if (came && !box.current?.contains(document.activeElement)) box.current?.focus({ preventScroll: true });
  }, [at]);
  return (
    <main id="main" ref={box} tabIndex={-1} {...rest}>
      {children}
    </main>
  );
}
