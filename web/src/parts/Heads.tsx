/** The head of a table: one column after the other. */
export function Heads({ names }: { names: readonly string[] }) {
  return (
    <thead className="text-left text-soft">
      <tr>
        {names.map((name) => (
          <th key={name} scope="col" className="pr-3 font-normal">
            {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}
