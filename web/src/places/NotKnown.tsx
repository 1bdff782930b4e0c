import { useParams } from "react-router";
import { useMoves } from "../parts/useMoves";
import { number } from "../units";
import { Main } from "../parts/Main";

/** What the model of a way of moving takes, how sure that is, and where it ends. */
export function NotKnown() {
  const { moves = "" } = useParams();
  const ways = useMoves();
  const known = ways?.find((w) => w.name === moves);
  if (ways && !known)
    return (
      <Main title="Not known" className="p-8">
        There is no way of moving called {moves}.
      </Main>
    );
  return (
    <Main title="What the model does not know" className="max-w-5xl p-5 lg:p-8">
      <h1 className="text-3xl">What the model does not know</h1>
      <p className="mt-2 max-w-prose text-lg">
        What is predicted is worked out from the folds, the paper and the laws of motion. It is no
        measurement. Your own {known?.words.many ?? "trials"} overrule it.
      </p>
      <h2 className="mt-6 text-xl">Where it ends</h2>
      <ul className="mt-2 max-w-prose list-inside list-disc space-y-1">
        {known?.limits.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </ul>
      <h2 className="mt-6 text-xl">Numbers it rests on that are not certain</h2>
      <div className="mt-2 overflow-x-auto" tabIndex={0} role="region" aria-label="Constants">
        <table className="w-full text-left">
          <thead className="text-sm text-quiet">
            <tr>
              <th scope="col">What</th>
              <th scope="col" className="pr-4 text-right">
                Taken
              </th>
              <th scope="col" className="pr-4">
                May be
              </th>
              <th scope="col">How sure</th>
              <th scope="col">Where it comes from</th>
              <th scope="col">What it does to the result</th>
            </tr>
          </thead>
          <tbody>
            {known?.constants.map((c) => (
              <tr key={c.name} className="border-t border-line align-top">
                <th scope="row" className="py-1.5 pr-4 font-semibold">
                  {c.name}
                </th>
                <td className="py-1.5 pr-4 text-right whitespace-nowrap">
                  {number(c.value, 2)} {c.unit}
                </td>
                <td className="py-1.5 pr-4 whitespace-nowrap">
                  {number(c.lo, 2)} to {number(c.hi, 2)}
                </td>
                <td className="py-1.5 pr-4">{c.confidence}</td>
                <td className="py-1.5 pr-4 text-quiet">{c.source}</td>
                <td className="py-1.5">{c.effect}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Main>
  );
}
