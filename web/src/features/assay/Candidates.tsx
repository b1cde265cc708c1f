import type { Schemas } from "../../api/client";
import { Note } from "../../ui/Note";
import { Heading } from "../../ui/Section";
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
      <Heading>
        Weight of evidence
        <span className="ml-3 text-note font-normal text-ink-2">
          among {data.grades_tried} grades; tick one to lay it over
        </span>
      </Heading>
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
            <Note className="pb-1.5 pl-8">{words(candidate)}</Note>
          </li>
        ))}
      </ul>
      <Note className="mt-2">{data.assumption}</Note>
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
