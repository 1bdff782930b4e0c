import type { ReactNode } from "react";

/** What the lines and dots of a motion's chart are. */
export function Legend({
  path,
  ghosts,
  measured,
  children,
}: {
  path: string;
  ghosts: boolean;
  measured: number;
  children?: ReactNode;
}) {
  return (
    <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-sm text-quiet">
      <li>
        <svg viewBox="0 0 34 10" className="mr-1 inline h-2.5 w-8" aria-hidden="true">
          <path
            d="M1 5H33"
            stroke="var(--lavender)"
            strokeWidth="4"
            strokeDasharray="1 6"
            strokeLinecap="round"
          />
        </svg>
        {path}
      </li>
      {ghosts && (
        <li>
          <svg viewBox="0 0 34 10" className="mr-1 inline h-2.5 w-8" aria-hidden="true">
            <path d="M1 5H33" stroke="var(--quiet)" strokeWidth="1.5" strokeDasharray="5 3" />
          </svg>
          earlier set-ups, predicted
        </li>
      )}
      {measured > 0 && (
        <li>
          <svg viewBox="0 0 12 12" className="mr-1 inline h-3 w-3" aria-hidden="true">
            <circle cx="6" cy="6" r="5" fill="var(--tide)" />
          </svg>
          measured, n = {measured}
        </li>
      )}
      {children}
    </ul>
  );
}

/** The thin line of a trial just as meant, which no hand makes. */
export function PerfectSign({ children }: { children: ReactNode }) {
  return (
    <li>
      <svg viewBox="0 0 34 10" className="mr-1 inline h-2.5 w-8" aria-hidden="true">
        <path d="M1 5H33" stroke="var(--lavender)" strokeWidth="1.2" />
      </svg>
      {children}
    </li>
  );
}
