/** The head of a table: columns of words, then columns of numbers. */
export function HeadRow({ words, numbers }: { words: string[]; numbers: string[] }) {
  return (
    <thead className="text-sm text-quiet">
      <tr>
        {words.map((w) => (
          <th key={w} scope="col">
            {w}
          </th>
        ))}
        {numbers.map((n) => (
          <th key={n} scope="col" className="text-right">
            {n}
          </th>
        ))}
      </tr>
    </thead>
  );
}
