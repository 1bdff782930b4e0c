/** Where the log lies elsewhere than its prediction: said beside both. */
export function Disagrees({ text }: { text: string }) {
  if (text === "") return null;
  return (
    <section aria-label="Log against prediction" className="border-2 border-ink p-3" data-disagrees="">
      <p className="font-semibold">The log disagrees with the prediction.</p>
      <p className="mt-1">{text} What you measured counts.</p>
    </section>
  );
}
