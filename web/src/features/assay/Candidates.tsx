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
        {bySteel(data.candidates).map((names) => (
          <SteelRow key={names[0].grade} names={names} laid={laid} onLay={onLay} />
        ))}
      </ul>
      <Note className="mt-2">{data.assumption}</Note>
    </section>
  );
}

type Candidate = Out["candidates"][number];
type Names = readonly [Candidate, ...Candidate[]];

/** One steel a row, however many standards name it. */
function bySteel(candidates: readonly Candidate[]): Names[] {
  const groups = new Map<string, [Candidate, ...Candidate[]]>();
  for (const candidate of candidates) {
    const key = `${candidate.is_in}|${candidate.steel}`;
    const own = groups.get(key);
    if (own) own.push(candidate);
    else groups.set(key, [candidate]);
  }
  return [...groups.values()];
}

/** A steel with its weight under all its names; the range of each can be laid over. */
function SteelRow({
  names: [head, ...others],
  laid,
  onLay,
}: {
  names: Names;
  laid: readonly string[];
  onLay: (grade: string) => void;
}) {
  const tick = (candidate: Candidate) => (
    <Tick
      key={candidate.grade}
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
  );
  return (
    <li className="border-b border-line">
      <div className="flex items-center justify-between gap-3">
        {tick(head)}
        <span className="flex w-44 shrink-0 items-center gap-2">
          {head.is_in ? <Bar share={head.steel_weight} /> : null}
        </span>
      </div>
      {others.length ? (
        <div className="flex flex-wrap items-center gap-x-4 pl-8">
          <span className="text-note text-ink-2">by other standards</span>
          {others.map(tick)}
        </div>
      ) : null}
      <Note className="pb-1.5 pl-8">{words(head)}</Note>
    </li>
  );
}

function words(candidate: Candidate): string {
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
