/** How two hands wrap it, push the crease in, and press: plain outlines, one for each act. */
export function HandsCard() {
  const line = { fill: "none", stroke: "var(--ink)", strokeWidth: 2, strokeLinejoin: "round" as const };
  const acts = [
    {
      words: "1 Wrap both halves round a finger, tight.",
      picture: (
        <>
          <path d="M12 66H74q8 0 8-8t-8-8H12" {...line} />
          <path d="M40 44q-6 15 0 30M60 44q6 15 0 30M40 44q10 -6 20 0M40 74q10 6 20 0" {...line} />
          <path d="M30 34q20 -22 40 0m-8 -2l8 2l1 -9" {...line} />
        </>
      ),
    },
    {
      words: "2 Push the short crease in with a fingertip.",
      picture: (
        <>
          <path d="M8 78q22 -20 42 -6q20 -14 42 6" {...line} />
          <path d="M42 20V56q0 8 8 8t8 -8V20" {...line} />
          <path d="M50 66v10m-5 -5l5 5l5 -5" {...line} />
        </>
      ),
    },
    {
      words: "3 Press both ends, let go: it flaps. Wrap it again for the next.",
      picture: (
        <>
          <path d="M24 60q26 -26 52 0" {...line} />
          <path d="M2 52h14q7 0 7 7t-7 7H2M98 52H84q-7 0 -7 7t7 7h14" {...line} />
          <path d="M30 40l-8 -14m0 9v-9h9M70 40l8 -14m0 9v-9h-9" {...line} />
        </>
      ),
    },
  ];
  return (
    <ul className="grid grid-cols-3 gap-2" aria-label="How hands make it flap" data-hands="">
      {acts.map((a) => (
        <li key={a.words} className="border border-line bg-panel p-2">
          <svg viewBox="0 0 100 96" className="w-full" aria-hidden="true">
            {a.picture}
          </svg>
          <p className="text-sm">{a.words}</p>
        </li>
      ))}
    </ul>
  );
}
