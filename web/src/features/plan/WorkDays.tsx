import type { Schemas } from "../../api/client";
import { folderAddress } from "../../api/folder";
import { day } from "../../domain/format";
import { labelOf } from "../../domain/words";
import { Heading } from "../../ui/Section";

/** The plan as days of work, to be seen in Today and taken into a calendar. */
export function WorkDays({ found, trialId }: { found: Schemas["TrialPlanOut"]; trialId: string }) {
  if (found.work.length === 0) return null;
  const days = [...new Set(found.work.map((w) => w.on))];
  const shown = (code: string) => (found.is_blind ? (found.codes[code] ?? code) : code);
  return (
    <section aria-label="Days of work" className="mt-6 print:hidden">
      <div className="flex items-baseline justify-between gap-4">
        <Heading>Days of work</Heading>
        <a
          className="font-semibold underline underline-offset-4"
          href={folderAddress(`/api/trials/${trialId}/calendar.ics`)}
          download
        >
          Export to a calendar
        </a>
      </div>
      <ul className="mt-1">
        {days.map((on) => {
          const work = found.work.filter((w) => w.on === on);
          const hours = work.reduce((sum, w) => sum + w.hours, 0);
          return (
            <li
              key={on}
              className="grid grid-cols-[6.5rem_1fr_4rem] gap-x-3 border-b border-line py-1"
            >
              <span className="text-ink-2">{day(on)}</span>
              <span>
                {work
                  .map((w) => `${labelOf("work", w.kind)} ${w.blades.map(shown).join(", ")}`)
                  .join("; ")}
              </span>
              <span className="text-right text-ink-2">{hours.toFixed(1)} h</span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
