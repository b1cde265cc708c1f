import { EdgeStrip } from "../../charts/EdgeStrip";
import { marksAtBench } from "../../domain/strips";
import { WORDS } from "../../domain/words";
import type { Run } from "./bench";
import { exposureWords, seenHere } from "./benchWords";
import type { Shown } from "./projection";
import type { Hand } from "./useHand";

export const isByLength = (run: Run) => WORDS.lengthUnits.some(([unit]) => unit === run.count_unit);

/** The edge that is cut, drawn with what was seen on it; wider while a place on it is asked. */
export function EdgeAtHand({ run, shown, hand }: { run: Run; shown: Shown; hand: Hand }) {
  const marks = marksAtBench(run.blade.edge);
  const isAsked = Boolean(hand.seeing);
  const besideKeys = hand.row.outcomes.length > 3 ? 270 : isByLength(run) ? 350 : 420;
  return (
    <EdgeStrip
      mark={run.blade.mark ?? 0}
      title={run.blade.code}
      edgeLengthMm={run.blade.edge_length_mm ?? null}
      edges={[
        {
          ...marks,
          seen: [...marks.seen, ...seenHere(run)],
          number: run.edge,
          zoneFromMm: run.zone_from_mm,
          zoneToMm: run.zone_to_mm,
          cuts: shown.count,
          worn: run.card.worn_share,
          live: true,
          label: exposureWords(run, shown.count),
        },
      ]}
      width={isAsked ? 470 : besideKeys}
      fullCuts={Math.max(30, shown.count + 5)}
      detail
      onPlace={isAsked ? hand.seenAt : undefined}
    />
  );
}
