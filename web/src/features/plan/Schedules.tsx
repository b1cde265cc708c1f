import type { Schemas } from "../../api/client";
import { honest } from "../../domain/format";

/** What each check schedule would use and reach on a middling blade of this trial, side by side. */
export function Schedules({ schedules }: { schedules: Schemas["ScheduleAheadOut"][] }) {
  const life = schedules[0]?.expected.life;
  if (!life) return null;
  return (
    <section aria-label="Check schedules" className="mt-6">
      <h2 className="text-lead font-bold">For a blade that lasts about {Math.round(life)} cuts</h2>
      <table className="mt-1 w-full border-collapse">
        <thead>
          <tr className="border-b-[1.5px] border-ink text-left text-note text-ink-2">
            <th className="py-1 font-medium">checked</th>
            <th className="py-1 font-medium">readings</th>
            <th className="py-1 font-medium">cuts to the stop</th>
            <th className="py-1 font-medium">2 of 3 estimates fall in</th>
          </tr>
        </thead>
        <tbody>
          {schedules.map((s) => (
            <tr key={s.name} className={`border-b border-line ${s.chosen ? "bg-sheet font-bold" : ""}`}>
              <th scope="row" className="py-1 text-left">
                {s.name}
                {s.chosen ? <span className="cond text-note font-normal"> chosen</span> : null}
              </th>
              <td>{Math.round(s.expected.readings)}</td>
              <td>{Math.round(s.expected.cuts)}</td>
              <td>
                {honest(s.expected.low, s.expected.low, s.expected.high)} to{" "}
                {honest(s.expected.high, s.expected.low, s.expected.high)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-note text-ink-2">By simulation on the virtual bench; an expectation, no promise.</p>
    </section>
  );
}
