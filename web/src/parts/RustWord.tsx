import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { bladeSoaksQuery, trialSoaksQuery } from "../api/queries";
import { Mark } from "../ui/Mark";
import { Section } from "../ui/Section";

/** How a blade did in soaks: its place, its area, and the conditions both were got under. */
export function RustWord({ bladeId }: { bladeId: string }) {
  const soaks = useQuery(bladeSoaksQuery(bladeId));
  if (!soaks.data) return null;
  if (soaks.data.length === 0) return <p className="text-ink-2">Not in a soak yet.</p>;
  return <SoakLines soaks={soaks.data} />;
}

/** What soaks say of the blades of a trial, beside what its cuts say; nothing where they were in
 *  none.
 */
export function RustOfTrial({ trialId }: { trialId: string }) {
  const blades = useQuery(trialSoaksQuery(trialId));
  if (!blades.data?.length) return null;
  return (
    <Section title="Rust of these blades" ruled>
      <div className="mt-1 grid gap-x-10 gap-y-4 bench:grid-cols-3">
        {blades.data.map((blade) => (
          <div key={blade.blade_id}>
            <h3 className="flex items-center gap-2 font-semibold">
              <Mark mark={blade.mark} size={18} /> {blade.code}
            </h3>
            <SoakLines soaks={blade.soaks} />
          </div>
        ))}
      </div>
    </Section>
  );
}

function SoakLines({ soaks }: { soaks: readonly Schemas["BladeSoakOut"][] }) {
  return (
    <ul>
      {soaks.map((soak) => (
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
