import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { bladeSoaksQuery } from "../api/queries";

/** How a blade did in soaks: its place, its area, and the conditions both were got under. */
export function RustWord({ bladeId }: { bladeId: string }) {
  const soaks = useQuery(bladeSoaksQuery(bladeId));
  if (!soaks.data) return null;
  if (soaks.data.length === 0) return <p className="text-ink-2">In no soak yet.</p>;
  return (
    <ul>
      {soaks.data.map((soak) => (
        <li key={`${soak.soak_id}-${soak.called}`} className="mt-2">
          <Link
            to={`/soak/${soak.soak_id}`}
            className="font-semibold underline decoration-line underline-offset-4"
          >
            {soak.name}
          </Link>
          <span className="text-ink-2">: </span>
          {soak.area ? (
            <>
              {soak.area} rusted{soak.place_says ? ` (${soak.place_says})` : ""}
            </>
          ) : (
            soak.first
          )}
          <span className="block text-note text-ink-2">
            {[soak.called, soak.conditions, soak.superficial].filter(Boolean).join(" · ")}
          </span>
        </li>
      ))}
    </ul>
  );
}
