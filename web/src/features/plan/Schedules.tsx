import { putMethod, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { toUncertainty } from "../../domain/format";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Heading } from "../../ui/Section";
import { Table } from "../../ui/Table";
import { TextButton } from "../../ui/TextButton";

type Method = Schemas["MethodOut"];
type Ahead = Schemas["ScheduleAheadOut"];

/**
 * What each check schedule would use and reach on a middling blade of this trial, side by side; one
 * press takes it.
 */
export function Schedules({
  schedules,
  method,
  trialId,
}: {
  schedules: Ahead[];
  method: Method;
  trialId: string;
}) {
  const take = useChange((chosen: Ahead) => putMethod(trialId, { method: chosen.method }));
  const life = schedules[0]?.expected.life;
  if (!life) return null;
  const unit = method.count_unit ?? "cuts";
  const asked = schedules.some((s) => s.method.schedule === "adaptive") ? "readings" : "looks";
  return (
    <section aria-label="Check schedules" className="mt-6">
      <Heading>
        For a blade that lasts about {Math.round(life)} {unit}
      </Heading>
      <Table
        scrolls="Ways of checking"
        heads={["checked", asked, `${unit} to the stop`, "2 of 3 estimates fall in"]}
        cell="py-1"
        className="mt-1 w-full"
      >
        {schedules.map((s) => (
          <tr
            key={s.name}
            className={`border-b border-line ${s.chosen ? "bg-sheet font-bold" : ""}`}
          >
            <th scope="row" className="text-left font-normal">
              {s.chosen ? (
                <span className="flex min-h-9 items-center gap-2 font-bold">
                  {s.name} <span className="cond text-note font-normal">chosen</span>
                </span>
              ) : (
                <TextButton
                  disabled={take.isPending}
                  onClick={() => take.mutate(s)}
                  className="text-left"
                >
                  {s.name}
                </TextButton>
              )}
            </th>
            <td className="pl-1">{Math.round(s.expected.readings)}</td>
            <td>{Math.round(s.expected.cuts)}</td>
            <td>
              {toUncertainty(s.expected.low, s.expected.low, s.expected.high)} to{" "}
              {toUncertainty(s.expected.high, s.expected.low, s.expected.high)}
            </td>
          </tr>
        ))}
      </Table>
      <Notice says={take.error?.message} className="mt-1" />
      <Note className="mt-1">
        {asked === "readings"
          ? "Simulated on the virtual bench: an expectation, not a promise. Press one to choose it."
          : "A check that passes or fails leaves a bracket as wide as the gap between checks. " +
            "Press one to choose it."}
      </Note>
    </section>
  );
}
