/** The two faces of a paper, a corner turned over. */
export function Faces({ front, back }: { front: string; back: string }) {
  return (
    <svg viewBox="0 0 20 14" className="mr-1 inline h-3.5 w-5" aria-hidden="true">
      <path d="M.5.5h19v13H.5z" fill={front} stroke="#10302f" />
      <path d="M19.5.5v13L9 13.5z" fill={back} stroke="#10302f" />
    </svg>
  );
}

/** One face's colour, to pick. */
export function Colour({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (v: string) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="color"
        className="size-11 border-2 border-ink"
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
      {label}
    </label>
  );
}
