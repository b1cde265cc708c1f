import type { Schemas } from "../../api/client";
import { Tick } from "../../ui/Tick";

type Out = Schemas["AssayOut"];

/** The grades held against the shots, with their weight of evidence; each can be laid over. */
export function Candidates({
  data,
  laid,
  onLay,
}: {
  data: Out;
  laid: readonly string[];
  onLay: (grade: string) => void;
}) {
  if (data.candidates.length === 0) return null;
  return (
    <section aria-label="Grades that fit">
      <h2 className="text-lead font-bold">
        Weight of evidence
        <span className="ml-3 text-note font-normal text-ink-2">
          among {data.grades_tried} grades; tick one to lay it over
        </span>
      </h2>
      <ul>
        {data.candidates.map((candidate) => (
          <li key={candidate.grade} className="border-b border-line">
            <div className="flex items-center justify-between gap-3">
              <Tick
                label={
                  <span className={candidate.is_in ? "" : "text-ink-2"}>
                    <b>{candidate.grade}</b> <span className="text-note">{candidate.also[0]}</span>
                    {candidate.is_claim ? <span className="text-note"> (the claim)</span> : null}
                  </span>
                }
                checked={candidate.is_claim || laid.includes(candidate.grade)}
                disabled={candidate.is_claim}
                onTick={() => onLay(candidate.grade)}
              />
              <span className="flex w-44 shrink-0 items-center gap-2">
                {candidate.is_in ? <Bar share={candidate.weight} /> : null}
              </span>
            </div>
            <p className="pb-1.5 pl-8 text-note text-ink-2">{words(candidate)}</p>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-note text-ink-2">{data.assumption}</p>
    </section>
  );
}

function words(candidate: Out["candidates"][number]): string {
  const why = candidate.excluded_by[0]?.says;
  return why ? `excluded: ${why}` : candidate.words;
}

function Bar({ share }: { share: number }) {
  const percent = 100 * share;
  return (
    <>
      <span className="h-3 flex-1 border border-ink-2">
        <span className="block h-full bg-ink" style={{ width: `${percent}%` }} />
      </span>
      <span className="w-12 text-right">{percent < 1 ? "< 1" : Math.round(percent)} %</span>
    </>
  );
}
