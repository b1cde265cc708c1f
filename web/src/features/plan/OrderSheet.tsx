import type { Schemas } from "../../api/client";
import { Mark } from "../../ui/Mark";

/** The order of cutting, block by block, to work from at the bench; printed, it is all that is printed. */
export function OrderSheet({ found, trial }: { found: Schemas["TrialPlanOut"]; trial: string }) {
  const blocks = [...new Set(found.order.map((p) => p.block))];
  const mark = (code: string) => found.blades.find((b) => b.code === code)?.mark ?? 0;
  if (blocks.length === 0) return null;
  return (
    <section aria-label="Order sheet" className="mt-8 pb-8">
      <h2 className="text-lead font-bold">
        Order of cutting<span className="hidden print:inline">: {trial}</span>
      </h2>
      <p className="text-note text-ink-2">
        Each blade once in every block; its place inside the block moves, so that a tiring hand and a changing lot weigh
        on all alike.
      </p>
      <ol className="mt-2">
        {blocks.map((block) => (
          <li key={block} className="flex flex-wrap items-center gap-x-8 gap-y-1 border-b border-line py-1.5">
            <span className="w-16 text-ink-2">block {block}</span>
            {found.order
              .filter((p) => p.block === block)
              .map((p) => (
                <span key={p.place} className="flex items-center gap-2 whitespace-nowrap">
                  <span className="text-note text-ink-2">{p.place}</span>
                  <Mark mark={mark(p.blade)} size={18} />
                  <b>{p.blade}</b>
                  <span className="hidden w-24 border-b border-ink print:inline-block" />
                </span>
              ))}
          </li>
        ))}
      </ol>
    </section>
  );
}
