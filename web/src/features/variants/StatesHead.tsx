import { LETTERS } from "./letters";

/** Names of the states over their columns, each with its letter. */
export function StatesHead({ names }: { names: readonly string[] }) {
  return (
    <thead>
      <tr>
        <td />
        {names.map((name, place) => (
          <th key={name} scope="col">
            <b className="letter">{LETTERS[place]}</b> {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}
