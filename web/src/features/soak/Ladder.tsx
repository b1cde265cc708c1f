import type { Schemas } from "../../api/client";
import { labelOf } from "../../domain/words";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Heading } from "../../ui/Section";
import type { Soak } from "./soak";

/** Who rusted least: levels of what varies, where there are several coupons of each, and coupons. */
export function Ladder({ soak }: { soak: Soak }) {
  const { answer } = soak;
  const ranked = answer.standings.length > 0;
  return (
    <>
      {answer.levels.length ? <Levels soak={soak} /> : null}
      <Heading>
        {ranked ? "Least rust first" : "Ranking"}
        {ranked && answer.judged_stage ? `, ${answer.judged_stage}` : ""}
      </Heading>
      <Rungs
        soak={soak}
        standings={answer.standings}
        aside={(id) => [...preparation(soak, id), ...seenOn(soak, id)]}
      />
      {ranked ? (
        <Note className="mt-1">Same number: tied.</Note>
      ) : (
        <p className="text-ink-2">Nothing is ranked yet.</p>
      )}
    </>
  );
}

/** Coupons at their places, each with what is said of it below. */
export function Rungs({
  soak,
  standings,
  aside,
}: {
  soak: Soak;
  standings: readonly Schemas["RankEntryOut"][];
  aside: (couponId: string) => string[];
}) {
  const by = new Map(soak.coupons.map((coupon, place) => [coupon.id, { coupon, place }]));
  return (
    <ol className="mt-1">
      {standings.map((standing, i) => {
        const found = by.get(standing.coupon_id);
        const isTied = standings[i - 1]?.place === standing.place;
        return (
          <li key={standing.coupon_id} className={rung(isTied)}>
            <span className="font-semibold text-ink-2">{isTied ? "" : standing.place}</span>
            <Mark
              mark={found?.coupon.blade_id ? found.coupon.mark : (found?.place ?? 0)}
              size={18}
            />
            <span className="font-semibold">{found?.coupon.called}</span>
            <span className="text-note">{standing.area.says}</span>
            <span className="col-span-2 col-start-3 text-note text-ink-2">
              {aside(standing.coupon_id).join(" · ")}
            </span>
          </li>
        );
      })}
    </ol>
  );
}

/** The levels of what varies at their places, each with its area over all its coupons. */
function Levels({ soak }: { soak: Soak }) {
  const { levels, unlinked_levels: unlinked } = soak.answer;
  return (
    <>
      <Heading>By {labelOf("soakFactors", soak.factor)}</Heading>
      <ol className="mt-1 mb-6">
        {levels.map((level, i) => {
          const isTied = levels[i - 1]?.place === level.place;
          return (
            <li key={level.level} className={rung(isTied)}>
              <span className="font-semibold text-ink-2">{isTied ? "" : level.place}</span>
              <span className="col-span-2 font-semibold">{level.level}</span>
              <span />
              <span className="col-span-3 col-start-2 text-note text-ink-2">{level.says}</span>
            </li>
          );
        })}
        {unlinked.map((level) => (
          <li key={level} className={rung(false)}>
            <span />
            <span className="col-span-2 font-semibold">{level}</span>
            <span className="text-note text-ink-2">not compared</span>
          </li>
        ))}
      </ol>
    </>
  );
}

const rung = (isTied: boolean) =>
  `grid grid-cols-[2.2rem_1.5rem_1fr_auto] items-center gap-x-2 py-1 ${
    isTied ? "" : "border-t border-line"
  }`;

/** What a coupon was given: on every row, so that none is taken for another. */
function preparation(soak: Soak, couponId: string): string[] {
  const coupon = soak.coupons.find((each) => each.id === couponId);
  return [coupon?.steel, coupon?.coating, coupon?.oil].filter((word): word is string =>
    Boolean(word),
  );
}

function seenOn(soak: Soak, couponId: string): string[] {
  const found = soak.answer.courses.find((c) => c.coupon_id === couponId);
  if (!found) return [];
  return [found.first, found.superficial, found.pits ? `${found.pits} pits` : ""].filter(Boolean);
}
