import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";
import { Mark } from "../../ui/Mark";

interface Props {
  found: Pick<Schemas["StageAnswerOut"], "stage" | "comparisons" | "shared_reasons">;
  blades: Schemas["AnswerOut"]["blades"];
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}

const MOST_EDGES = 100;

/** Each pair judged: the sentence, why, what it may speak of, and what would settle it. */
export function Pairs({ found, blades, highlighted, onHighlight }: Props) {
  const { comparisons: pairs, shared_reasons: shared, stage } = found;
  const markFor = (code: string) => blades.find((b) => b.code === code)?.mark ?? 0;
  if (pairs.length === 0) return null;
  return (
    <section aria-label={`Pairs, to ${stage}`} className="mt-8 border-t-[1.5px] border-ink pt-3">
      <h2 className="text-lead font-bold">Pair by pair, to {stage}</h2>
      {shared.length ? (
        <p className="text-note text-ink-2">For every pair: {shared.join("; ")}.</p>
      ) : null}
      <ul>
        {pairs.map((c) => (
          <li
            key={`${c.a}-${c.b}`}
            className={`grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-1 border-b border-line py-3
              bench:grid-cols-[170px_1fr_minmax(0,360px)]
              ${highlighted === c.a || highlighted === c.b ? "bg-sheet" : ""}`}
            onPointerEnter={() => onHighlight(c.b)}
            onPointerLeave={() => onHighlight(null)}
          >
            <p className="flex items-start gap-2 font-semibold">
              {c.order.map((code) => (
                <Mark key={code} mark={markFor(code)} size={18} />
              ))}
              <span className={c.verdict === "confounded" ? "text-rust" : ""}>{c.tag}</span>
            </p>
            <p>{c.words}</p>
            <p className="text-note text-ink-2">
              {c.reasons.map((r) => `${r.charAt(0).toUpperCase()}${r.slice(1)}. `)}
              Speaks of {c.scope}.{c.edges_to_settle ? ` ${settles(c.edges_to_settle)}` : ""}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}

function settles(edges: number): string {
  const more = edges >= MOST_EDGES ? "100 or more edges" : plural(edges, "more edge");
  return `About ${more} a blade would settle it.`;
}
