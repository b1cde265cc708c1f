import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";
import { Mark } from "../../ui/Mark";

interface Props {
  data: Schemas["AnswerOut"];
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}

const SAID = {
  longer: "longer",
  shorter: "shorter",
  too_close: "too close to matter",
  not_enough_evidence: "not enough evidence",
  confounded: "not a fair pair",
};

/** Each pair judged: the sentence, why, what it may speak of, and what would settle it. */
export function Pairs({ data, highlighted, onHighlight }: Props) {
  const pairs = data.comparisons.filter((c) => c.stage === data.stage);
  const markFor = (code: string) => data.blades.find((b) => b.code === code)?.mark ?? 0;
  if (pairs.length === 0) return null;
  return (
    <section aria-label="Pairs" className="mt-8 border-t-[1.5px] border-ink pt-3">
      <h2 className="text-lead font-bold">Pair by pair, to {data.stage}</h2>
      <ul>
        {pairs.map((c) => (
          <li
            key={`${c.a}-${c.b}`}
            className={`grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-1 border-b border-line py-3
              bench:grid-cols-[150px_1fr_minmax(0,360px)]
              ${highlighted === c.a || highlighted === c.b ? "bg-sheet" : ""}`}
            onPointerEnter={() => onHighlight(c.b)}
            onPointerLeave={() => onHighlight(null)}
          >
            <p className="flex items-start gap-2 font-semibold">
              <Mark mark={markFor(c.a)} size={18} />
              <Mark mark={markFor(c.b)} size={18} />
              <span className={c.verdict === "confounded" ? "text-rust" : ""}>
                {SAID[c.verdict]}
              </span>
            </p>
            <p>{c.words}</p>
            <p className="text-note text-ink-2">
              {c.reasons.map((r) => `${r}. `)}
              Speaks of {c.scope}.
              {c.edges_to_settle
                ? " About " +
                  `${c.edges_to_settle >= 100 ? "100 or more" : plural(c.edges_to_settle, "more edge")} ` +
                  "a blade would settle it."
                : ""}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
