import { useMutation, useQueryClient } from "@tanstack/react-query";
import { deleteKit, listsChanged } from "../../api/queries";

interface KitLine {
  id: number;
  name: string;
  cameras: string[];
  trips: string[];
}

/** The kits; one that trips use stays, and says which trips. */
export function KitList({ kits }: { kits: readonly KitLine[] }) {
  const cache = useQueryClient();
  const removing = useMutation({
    mutationFn: deleteKit,
    onSettled: () => listsChanged(cache),
  });
  if (kits.length === 0) return null;
  return (
    <section>
      <h2>Kits</h2>
      <ul className="trip-list">
        {kits.map((kit) => (
          <li key={kit.id}>
            <strong className="label">{kit.name}</strong>
            <span className="trip-more">
              {kit.cameras.length > 0 ? kit.cameras.join(", ") : "no camera yet"};{" "}
              {kit.trips.length > 0 ? `used by ${kit.trips.join(", ")}` : "used by no trip"}
            </span>
            {kit.trips.length === 0 ? (
              <button
                type="button"
                className="plain link"
                disabled={removing.isPending}
                onClick={() => removing.mutate(kit.id)}
                aria-label={`Delete ${kit.name}`}
              >
                Delete
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      {removing.error ? <p role="alert">{removing.error.message}</p> : null}
    </section>
  );
}
