import type { Schemas } from "../../api/client";
import { counted } from "../../domain/format";

/** The life that the plan begins with, blade by blade, and where it comes from. */
export function PlannedLives({
  blades,
  unit,
}: {
  blades: Schemas["TrialPlanOut"]["blades"];
  unit: string;
}) {
  const groups = new Map<string, string[]>();
  for (const { code, expected, life_from: from } of blades) {
    const says = `${counted(Math.round(expected.life * 10) / 10)} ${unit}, ${from}`;
    groups.set(says, [...(groups.get(says) ?? []), code]);
  }
  return (
    <ul aria-label="Expected lives" className="self-end text-note text-ink-2">
      {[...groups].map(([says, codes]) => (
        <li key={says}>
          <b>{codes.join(", ")}</b>: {says}
        </li>
      ))}
    </ul>
  );
}
