import type { Schemas } from "../../api/client";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { cutLanes, fullCuts } from "../../domain/strips";
import { Mark } from "../../ui/Mark";

/** Whose curve is whose, by mark and by edge: what was cut where on each blade. */
export function Legend({
  data,
  width,
  highlighted,
  onHighlight,
}: {
  data: Schemas["AnswerOut"];
  width: number;
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}) {
  const runs = data.runs.map((r) => r.run);
  return (
    <ul aria-label="Blades and their edges" className="mt-4 border-t border-line">
      {data.blades.map((blade) => (
        <li
          key={blade.arm_id}
          className={`flex items-center gap-3 py-1 ${highlighted === blade.code ? "bg-sheet" : ""}`}
          onPointerEnter={() => onHighlight(blade.code)}
          onPointerLeave={() => onHighlight(null)}
        >
          <Mark mark={blade.mark} size={18} />
          <span className="w-16 shrink-0 truncate text-note font-semibold">{blade.code}</span>
          <EdgeStrip
            mark={blade.mark}
            title={blade.code}
            edgeLengthMm={blade.edge_length_mm}
            edges={cutLanes(runs, blade)}
            fullCuts={fullCuts(runs)}
            width={Math.max(180, Math.min(300, width - 110))}
            highlighted={highlighted === blade.code}
          />
        </li>
      ))}
    </ul>
  );
}
