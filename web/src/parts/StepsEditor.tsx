import { Button } from "../ui/Button";
import { CellField } from "../ui/CellField";
import { refusalAt } from "../ui/refusal";
import { Table, unseen } from "../ui/Table";
import { anotherStep, type STEP_KINDS, type StepRows } from "./steps";

const COLUMNS: ReadonlyArray<readonly [keyof typeof STEP_KINDS, string, string]> = [
  ["abrasive", "abrasive", "min-w-32"],
  ["kind", "kind", "min-w-28"],
  ["size_um", "µm", "w-16"],
  ["grit", "grit", "w-24"],
  ["side_angle_deg", "° a side", "w-16"],
  ["strokes_per_side", "strokes a side", "w-16"],
  ["pressure", "pressure", "w-24"],
  ["repeats", "times", "w-14"],
];

/** The ordered steps of a regime, in a table that is typed into; a refusal stands at its field. */
export function StepsEditor({ steps, error }: { steps: StepRows; error: Error | null }) {
  const { rows } = steps;
  const moveUp = (at: number) => {
    const next = [...rows];
    next.splice(at - 1, 0, ...next.splice(at, 1));
    steps.put(next);
  };
  return (
    <div className="overflow-x-auto">
      <Table
        heads={["step", ...COLUMNS.map(([, label]) => label), unseen("move or delete")]}
        cell="px-1 py-1"
      >
        {rows.map((step, i) => (
          <tr key={step.id} className="border-b border-line">
            <th scope="row" className="pr-2 text-left font-semibold">
              {i + 1}
            </th>
            {COLUMNS.map(([name, label, width]) => {
              const cell = steps.cell(step, name);
              return (
                <td key={name} className="p-1 align-top">
                  <CellField
                    says={`step ${i + 1}, ${label}`}
                    {...cell}
                    className={`w-full ${width}`}
                    error={cell.error ?? refusalAt(error, `steps.${i}.${name}`)}
                  />
                </td>
              );
            })}
            <td className="whitespace-nowrap">
              <Tool label={`Move step ${i + 1} up`} off={i === 0} onClick={() => moveUp(i)}>
                ↑
              </Tool>
              <Tool label={`Delete step ${i + 1}`} onClick={() => steps.remove(step.id)}>
                ×
              </Tool>
            </td>
          </tr>
        ))}
      </Table>
      <Button kind="quiet" className="px-0" onClick={() => steps.put([...rows, anotherStep()])}>
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
