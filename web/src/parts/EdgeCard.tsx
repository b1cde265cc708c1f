import type { Schemas } from "../api/client";
import { EdgeChecks } from "./EdgeChecks";
import { EdgeCounting } from "./EdgeCounting";
import { EdgeDamage } from "./EdgeDamage";
import { EdgeFact } from "./EdgeFact";
import { EdgeSteps } from "./EdgeSteps";
import { ZoneEditor } from "./ZoneEditor";

type Edge = Schemas["EdgeOut"];
type Quantity = Schemas["QuantityOut"];

/** One sharpening: its steps, checks, measures, zones and marks, and whether it counts. */
export function EdgeCard({
  bladeId,
  lengthMm,
  edge,
  standing,
  quantities,
  recipeName,
}: {
  bladeId: string;
  lengthMm: number | null;
  edge: Edge;
  standing: Schemas["EdgeStandingOut"] | undefined;
  quantities: readonly Quantity[];
  recipeName: string | undefined;
}) {
  const measured = quantities.filter((q) => q.of === "edge");
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 bench:grid-cols-2">
      <div className="flex flex-col gap-5">
        <dl className="grid grid-cols-2 gap-x-4 gap-y-1">
          {measured.map((q) => (
            <EdgeFact key={q.name} bladeId={bladeId} edge={edge} quantity={q} />
          ))}
        </dl>
        {edge.expected_thickness ? (
          <p className="ruled border-l-4 border-line pl-3">
            <span className="bg-paper pr-2">{edge.expected_thickness}.</span>
          </p>
        ) : null}
        {edge.stations ? (
          <p className="text-note">
            Stations: {edge.stations.mean_mm.toFixed(3)} mm mean, {edge.stations.low_mm.toFixed(2)}{" "}
            to {edge.stations.high_mm.toFixed(2)} mm
            {edge.stations.uneven
              ? ". They differ by more than 0.05 mm: where the cut is made decides."
              : "."}
          </p>
        ) : null}
        <ZoneEditor key={edge.id} bladeId={bladeId} edge={edge} lengthMm={lengthMm} />
        <EdgeDamage bladeId={bladeId} edge={edge} />
      </div>
      <div className="flex flex-col gap-5">
        <EdgeSteps
          bladeId={bladeId}
          edge={edge}
          recipeName={recipeName}
          departures={standing?.departures ?? []}
        />
        <EdgeChecks bladeId={bladeId} edge={edge} />
        <EdgeCounting bladeId={bladeId} edge={edge} standing={standing} />
      </div>
    </div>
  );
}
