import type { Schemas } from "../api/client";
import { typedNumber } from "../domain/format";
import { Button } from "../ui/Button";
import { CellField } from "../ui/CellField";

type Step = Schemas["StepBody"];

/** A step as typed: numbers stay text until they are kept. */
export interface TypedStep {
  abrasive: string;
  kind: string;
  size_um: string;
  grit: string;
  side_angle_deg: string;
  strokes_per_side: string;
  pressure: string;
  note: string;
  repeats: string;
}

export const typedStep = (step?: Step): TypedStep => ({
  abrasive: step?.abrasive ?? "",
  kind: step?.kind ?? "",
  size_um: step?.size_um?.toString() ?? "",
  grit: step?.grit ?? "",
  side_angle_deg: step?.side_angle_deg?.toString() ?? "",
  strokes_per_side: step?.strokes_per_side?.toString() ?? "",
  pressure: step?.pressure ?? "",
  note: step?.note ?? "",
  repeats: String(step?.repeats ?? 1),
});

const COLUMNS: ReadonlyArray<readonly [keyof TypedStep, string, string]> = [
  ["abrasive", "abrasive", "min-w-32"],
  ["kind", "kind", "min-w-28"],
  ["size_um", "µm", "w-16"],
  ["grit", "grit", "w-24"],
  ["side_angle_deg", "° a side", "w-16"],
  ["strokes_per_side", "strokes a side", "w-16"],
  ["pressure", "pressure", "w-24"],
  ["repeats", "times", "w-14"],
];
const NUMBERS = ["size_um", "side_angle_deg", "strokes_per_side", "repeats"] as const;

/** The typed steps as they are sent; undefined where a number cannot be read. */
export function readSteps(steps: readonly TypedStep[]): Step[] | undefined {
  const read = steps.map((step): Step | undefined => {
    const [size, angle, strokes, repeats] = NUMBERS.map((name) => typedNumber(step[name]));
    if (size === undefined || angle === undefined || strokes === undefined || !repeats)
      return undefined;
    return { ...step, size_um: size, side_angle_deg: angle, strokes_per_side: strokes, repeats };
  });
  return read.includes(undefined) ? undefined : (read as Step[]);
}

/** The ordered steps of a regime, in a table that is typed into; a refusal stands at its field. */
export function StepsEditor({
  steps,
  onChange,
  refusedField = null,
  refusal = "",
}: {
  steps: readonly TypedStep[];
  onChange: (steps: TypedStep[]) => void;
  refusedField?: string | null | undefined;
  refusal?: string;
}) {
  const set = (at: number, part: Partial<TypedStep>) =>
    onChange(steps.map((step, i) => (i === at ? { ...step, ...part } : step)));
  const move = (at: number, by: number) => {
    const next = [...steps];
    const [taken] = next.splice(at, 1);
    if (taken) next.splice(at + by, 0, taken);
    onChange(next);
  };
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b-[1.5px] border-ink text-left text-note text-ink-2">
            <th className="py-1 pr-2 font-medium">step</th>
            {COLUMNS.map(([name, label]) => (
              <th key={name} className="px-1 py-1 font-medium">
                {label}
              </th>
            ))}
            <th>
              <span className="sr-only">move or delete</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {steps.map((step, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a step is its place in the order
            <tr key={i} className="border-b border-line">
              <th scope="row" className="pr-2 text-left font-semibold">
                {i + 1}
              </th>
              {COLUMNS.map(([name, label, width]) => {
                const unread =
                  (NUMBERS as readonly string[]).includes(name) &&
                  typedNumber(step[name]) === undefined
                    ? `“${step[name]}” is not a number`
                    : undefined;
                const wrong =
                  unread ?? (refusedField === `steps.${i}.${name}` ? refusal : undefined);
                return (
                  <td key={name} className="p-1 align-top">
                    <CellField
                      says={`step ${i + 1}, ${label}`}
                      value={step[name]}
                      onChange={(e) => set(i, { [name]: e.target.value })}
                      className={`w-full ${width}`}
                      error={wrong}
                    />
                  </td>
                );
              })}
              <td className="whitespace-nowrap">
                <Tool label={`Move step ${i + 1} up`} off={i === 0} onClick={() => move(i, -1)}>
                  ↑
                </Tool>
                <Tool
                  label={`Delete step ${i + 1}`}
                  onClick={() => onChange(steps.filter((_, other) => other !== i))}
                >
                  ×
                </Tool>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button kind="quiet" className="px-0" onClick={() => onChange([...steps, typedStep()])}>
        Add a step
      </Button>
    </div>
  );
}

function Tool({
  label,
  off = false,
  onClick,
  children,
}: {
  label: string;
  off?: boolean;
  onClick: () => void;
  children: string;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      disabled={off}
      onClick={onClick}
      className="min-h-11 min-w-8 cursor-pointer disabled:opacity-30"
    >
      {children}
    </button>
  );
}
