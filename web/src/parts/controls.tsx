import {
  useEffect,
  useId,
  useRef,
  type ButtonHTMLAttributes,
  type InputHTMLAttributes,
  type ReactNode,
} from "react";

import { understood } from "../amount";

type Weight = "main" | "plain" | "now" | "bare";

const weights: Record<Weight, string> = {
  main: "border-2 border-ink bg-ink text-panel",
  plain: "border-2 border-ink bg-panel text-ink hover:bg-ground aria-pressed:bg-ink aria-pressed:text-panel",
  now: "border-2 border-on-mark bg-buoy text-on-mark",
  bare: "underline decoration-1 underline-offset-4 hover:decoration-2",
};

export function Button({
  weight = "plain",
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { weight?: Weight }) {
  const size = weight === "bare" ? "py-1" : "min-h-11 px-4 py-2";
  return (
    <button
      type="button"
      {...rest}
      className={`${size} ${weights[weight]} font-semibold disabled:opacity-60 ${className}`}
    />
  );
}

export function Field({
  label,
  hint,
  problem,
  unit,
  className = "",
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & {
  label: string;
  hint?: string;
  problem?: string;
  unit?: string;
}) {
  const id = useId();
  // What has a unit, or the keys for numbers, is a number.
  const own = unit ?? (rest.inputMode === "decimal" || rest.inputMode === "numeric" ? "" : undefined);
  const meant = own !== undefined && typeof rest.value === "string" ? understood(rest.value, own) : undefined;
  return (
    <div className={className}>
      <label htmlFor={id} className="block text-sm font-semibold">
        {label}
      </label>
      <div className="flex items-center gap-2">
        <input
          autoComplete="off"
          {...rest}
          id={id}
          aria-invalid={problem ? true : undefined}
          aria-describedby={(problem ?? meant ?? hint) ? `${id}-more` : undefined}
          data-unit={own}
          className="min-h-11 w-full min-w-0 border-2 border-ink bg-panel px-3 py-2 text-ink"
        />
        {unit && <span className="shrink-0 text-quiet">{unit}</span>}
      </div>
      {(problem ?? meant ?? hint) && (
        <p
          id={`${id}-more`}
          className={problem ? "mt-1 bg-caution px-2 py-1 text-sm text-on-mark" : "mt-1 text-sm text-quiet"}
        >
          {problem ?? meant ?? hint}
        </p>
      )}
    </div>
  );
}

/**
 * A caution: yellow ground, ink text, and the word. It comes into sight by itself,
 * unless it is still: one that was there from the start.
 */
export function Caution({
  children,
  title,
  still,
}: {
  children?: ReactNode;
  title: string;
  still?: boolean;
}) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // Not returned: newer browsers give a promise, which is no clean-up.
    if (!still) box.current?.scrollIntoView({ block: "nearest" });
  }, [title, still]);
  return (
    <div
      ref={box}
      role={still ? "note" : "alert"}
      className="scroll-my-24 border-2 border-on-mark bg-caution p-3 text-on-mark"
    >
      <p className="title text-lg">{title}</p>
      {children}
    </div>
  );
}

/** The one thing to do now. */
export function DoNow({ children, note }: { children: ReactNode; note?: ReactNode }) {
  return (
    <div className="border-2 border-on-mark bg-buoy p-4 text-on-mark">
      <p className="title text-[1.45rem]">{children}</p>
      {note && <div className="mt-2 font-semibold">{note}</div>}
    </div>
  );
}

/** The number that matters, very large, with its unit and what it means. */
export function Figure({ value, unit, children }: { value: string; unit: string; children?: ReactNode }) {
  return (
    <div>
      <p>
        <span className="figure text-6xl">{value}</span> <span className="title text-xl">{unit}</span>
      </p>
      {children && <p className="mt-1 text-quiet">{children}</p>}
    </div>
  );
}

/** A choice of a few, shown side by side. */
export function Choice<T extends string>({
  label,
  quiet,
  value,
  options,
  onChange,
}: {
  label: string;
  /** The label is for those who cannot see what the options are of. */
  quiet?: boolean;
  value: T;
  options: { value: T; label: string }[];
  onChange: (v: T) => void;
}) {
  const name = useId();
  return (
    <fieldset>
      <legend className={quiet ? "sr-only" : "mb-1 text-sm font-semibold"}>{label}</legend>
      <div className="flex flex-wrap">
        {options.map((o) => (
          <label
            key={o.value}
            className="-mr-0.5 -mb-0.5 flex min-h-11 cursor-pointer items-center gap-2 border-2 border-ink bg-panel px-3 has-checked:bg-ink has-checked:text-panel has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-tide"
          >
            <input
              type="radio"
              name={name}
              className="sr-only"
              checked={o.value === value}
              onChange={() => onChange(o.value)}
            />
            {o.label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** A thing to tick. */
export function Check({
  checked,
  onChange,
  className = "min-h-11",
  children,
}: {
  checked: boolean;
  onChange: (v: boolean) => void;
  className?: string;
  children: ReactNode;
}) {
  return (
    <label className={`flex items-center gap-2 ${className}`}>
      <input
        type="checkbox"
        className="size-5 accent-ink"
        checked={checked}
        onChange={(e) => onChange(e.target.checked)}
      />
      {children}
    </label>
  );
}

/** A choice of many, in a list. */
export function Select<T extends string>({
  label,
  value,
  options,
  onChange,
  className = "",
}: {
  label: string;
  value: T;
  options: { value: T; label: string }[];
  onChange: (v: T) => void;
  className?: string;
}) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="block text-sm font-semibold">
        {label}
      </label>
      <select
        id={id}
        value={value}
        onChange={(e) => onChange(e.target.value as T)}
        className="min-h-11 w-full border-2 border-ink bg-panel px-2"
      >
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </div>
  );
}
