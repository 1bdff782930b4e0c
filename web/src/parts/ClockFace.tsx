import type { ReactNode } from "react";

const hours = [12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11];

/** A direction, tapped on the face of a clock that lies on the toy; tapped again it is taken back. */
export function ClockFace({
  label,
  value,
  onTap,
  children,
}: {
  label: string;
  value: string;
  onTap: (hour: string) => void;
  /** The toy that the clock lies on. */
  children?: ReactNode;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{label}</legend>
      <div className="relative mx-auto aspect-square w-full max-w-[17rem]">
        <div className="absolute inset-[22%]" aria-hidden="true">
          {children}
        </div>
        {hours.map((h, i) => {
          const a = (i * Math.PI) / 6;
          return (
            <button
              key={h}
              type="button"
              aria-pressed={value === String(h)}
              aria-label={`${label}: ${h} o'clock`}
              className="title absolute size-11 -translate-1/2 border border-ink bg-panel hover:bg-ground aria-pressed:bg-ink aria-pressed:text-panel"
              style={{ left: `${50 + 42 * Math.sin(a)}%`, top: `${50 - 42 * Math.cos(a)}%` }}
              onClick={() => onTap(value === String(h) ? "" : String(h))}
            >
              {h}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}
