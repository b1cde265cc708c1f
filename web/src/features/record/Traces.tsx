import type { Schemas } from "../../api/client";
import { day } from "../../domain/format";
import { Section } from "../../ui/Section";

/** What was put right, the newest first. */
export function Traces({ traces }: { traces: readonly Schemas["TraceOut"][] }) {
  if (traces.length === 0) return null;
  return (
    <Section title="Corrected" className="mt-8">
      <ul className="mt-1">
        {traces.map((trace) => (
          <li key={trace.id} className="border-t border-line py-1.5">
            {trace.says}
            <span className="block text-note text-ink-2">
              {[day(trace.made_utc), trace.by, trace.reason].filter(Boolean).join(" · ")}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}
