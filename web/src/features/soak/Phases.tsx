import type { Schemas } from "../../api/client";
import { Note } from "../../ui/Note";
import { Heading } from "../../ui/Section";
import { Rungs } from "./Ladder";
import type { Soak } from "./soak";

/** What each phase says by itself, where the medium changes on the way. */
export function Phases({ soak }: { soak: Soak }) {
  const { phases } = soak.answer;
  return (
    <>
      {phases.map((phase) => (
        <section key={phase.title} aria-label={phase.title} className="mt-6">
          <Heading>{phase.title}</Heading>
          <p className="mt-1">{phase.says}</p>
          <Rungs
            soak={soak}
            standings={phase.standings}
            aside={(id) => [phase.came[id] ?? ""].filter(Boolean)}
          />
          <Shades soak={soak} of={phase.discoloured} className="mt-1" />
        </section>
      ))}
      {phases.length && soak.answer.is_one_answer ? (
        <Note className="mt-1">Areas of a phase hold what came before it, too.</Note>
      ) : null}
    </>
  );
}

/** Who discoloured how far. */
export function Shades({
  soak,
  of,
  className = "",
}: {
  soak: Soak;
  of: readonly Schemas["DiscolouredOut"][];
  className?: string;
}) {
  if (of.length === 0) return null;
  const called = new Map(soak.coupons.map((coupon) => [coupon.id, coupon.called]));
  return (
    <dl className={`text-note ${className}`}>
      {of.map(({ word, coupon_ids: ids }) => (
        <div key={word} className="flex gap-2">
          <dt className="min-w-28 text-ink-2">{word}</dt>
          <dd>{ids.map((id) => called.get(id)).join(", ")}</dd>
        </div>
      ))}
    </dl>
  );
}
