import type { Schemas } from "../api/client";
import { newId } from "../domain/ids";
import { shownNumber } from "../domain/typed";
import { type RowTyped, type RowValues, useRows } from "../ui/useRows";

type Step = Schemas["StepBody"];

/** How a step of a regime is read. */
export const STEP_KINDS = {
  abrasive: "text",
  kind: "text",
  size_um: "number",
  grit: "text",
  side_angle_deg: "number",
  strokes_per_side: "number",
  pressure: "text",
  note: "text",
  repeats: { needed: "say how many times" },
} as const;
export type StepRows = ReturnType<typeof useSteps>;

/** The steps of a regime as they are typed. */
export function useSteps(draft: string, steps: readonly Step[]) {
  return useRows({ draft, kinds: STEP_KINDS, start: steps.map(stepTyped) });
}

/** A step as its cells show it; a new one is made once. */
export const stepTyped = (step: Step, place = 0): RowTyped<typeof STEP_KINDS> => ({
  id: `step ${place}`,
  abrasive: step.abrasive,
  kind: step.kind ?? "",
  size_um: shownNumber(step.size_um),
  grit: step.grit ?? "",
  side_angle_deg: shownNumber(step.side_angle_deg),
  strokes_per_side: shownNumber(step.strokes_per_side),
  pressure: step.pressure ?? "",
  note: step.note ?? "",
  repeats: String(step.repeats ?? 1),
});

export const NEW_STEP: Step = { abrasive: "", repeats: 1 };
export const anotherStep = () => ({ ...stepTyped(NEW_STEP), id: newId() });

/** The steps as they are sent. */
export const stepsSent = (rows: readonly RowValues<typeof STEP_KINDS>[]): Step[] =>
  rows.map(({ id: _, ...step }) => step);
