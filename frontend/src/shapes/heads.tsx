/** The head of a table of ways to do something. */
export function Heads({ names }: { names: readonly string[] }) {
  return (
    <thead className="text-left">
      <tr>
        {names.map((name) => (
          <th key={name} scope="col" className="px-1.5 py-1 font-semibold">
            {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}
