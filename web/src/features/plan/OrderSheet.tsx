import type { Schemas } from "../../api/client";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Heading } from "../../ui/Section";

/**
 * The order of cutting, block by block, to work from at the bench; printed, it is all that is
 * printed.
 */
export function OrderSheet({ found, trial }: { found: Schemas["TrialPlanOut"]; trial: string }) {
  const blocks = [...new Set(found.order.map((p) => p.block))];
  const mark = (code: string) => found.blades.find((b) => b.code === code)?.mark ?? 0;
  const shown = (code: string) => (found.is_blind ? (found.codes[code] ?? code) : code);
  if (blocks.length === 0) return null;
  return (
    <section aria-label="Order sheet" className="mt-8 pb-8">
      <Heading>
        Order of cutting<span className="hidden print:inline">: {trial}</span>
      </Heading>
      <Note>
        {found.plan.order_kind === "alternate"
          ? "The blades of a block take turns, cut by cut, within one piece of board; the one " +
            "that begins moves on."
          : "Each blade once in every block; its place inside the block moves, so that a " +
            "tiring hand and a changing lot affect all blades alike."}
        {found.plan.balance_zones ? " Heel, middle and tip are spread over the blades." : ""}
      </Note>
      <ol className="mt-2">
        {blocks.map((block) => (
          <li
            key={block}
            className="flex flex-wrap items-center gap-x-8 gap-y-1 border-b border-line py-1.5"
          >
            <span className="w-16 text-ink-2">block {block}</span>
            {found.order
              .filter((p) => p.block === block)
              .map((p) => (
                <span key={p.place} className="flex items-center gap-2 whitespace-nowrap">
                  <span className="text-note text-ink-2">{p.place}</span>
                  {found.is_blind ? null : <Mark mark={mark(p.blade)} size={18} />}
                  <b>{shown(p.blade)}</b>
                  {p.third ? <span className="text-note text-ink-2">{p.third}</span> : null}
                  <span className="hidden w-24 border-b border-ink print:inline-block" />
                </span>
              ))}
          </li>
        ))}
      </ol>
    </section>
  );
}
