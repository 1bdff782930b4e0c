/** Names made here need no secure connection, which the hall network does not have. */
export function freshKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return Array.from(bytes, (b) => b.toString(16).padStart(2, "0")).join("");
}

const kept = "tussock-device";

/** A name for this page, to know its own changes by. */
export const me = (() => {
  const known = sessionStorage.getItem(kept);
  if (known) return known;
  const fresh = freshKey().slice(0, 12);
  sessionStorage.setItem(kept, fresh);
  return fresh;
})();
