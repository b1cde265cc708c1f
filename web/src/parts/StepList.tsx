import type { Schemas } from "../api/client";

type Step = Schemas["StepBody"];

/** One step in words: abrasive, size, grit, angle, strokes, and how often where more than once. */
export function stepWords(step: Step): string {
  return [
    step.abrasive,
    step.size_um ? `, ${step.size_um} µm` : "",
    step.grit ? ` (${step.grit})` : "",
    step.side_angle_deg ? ` at ${step.side_angle_deg}°` : "",
    step.strokes_per_side ? `, ${step.strokes_per_side} strokes a side` : "",
    (step.repeats ?? 1) > 1 ? `, ${step.repeats} times` : "",
  ].join("");
}

/** The steps of a regime in their order. */
export function StepList({
  steps,
  className = "",
}: {
  steps: readonly Step[];
  className?: string;
}) {
  return (
    <ol className={`list-decimal ${className}`}>
      {steps.map((step, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a step is its place in the order
        <li key={i}>{stepWords(step)}</li>
      ))}
    </ol>
  );
}
