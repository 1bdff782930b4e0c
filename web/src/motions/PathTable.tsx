import type { ReactNode } from "react";

/** How scattered trials go, and a path as a table for those who cannot see it. */
export function PathTable({
  summary,
  children,
  columns,
  rows,
}: {
  summary: string;
  children: ReactNode;
  columns: string[];
  rows: string[][];
}) {
  return (
    <details>
      <summary>{summary}</summary>
      <p className="mt-1">{children}</p>
      <div
        className="mt-2 max-h-60 overflow-auto"
        tabIndex={0}
        role="region"
        aria-label="The path as a table"
      >
        <table className="w-full text-right">
          <thead className="text-sm text-quiet">
            <tr>
              {columns.map((c) => (
                <th key={c} scope="col">
                  {c}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r[0]} className="border-t border-line">
                {r.map((v, i) => (
                  <td key={columns[i]}>{v}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
