import type { Refused } from "../../api/client";
import { momentOf } from "../../domain/days";
import { labelOf, WORDS } from "../../domain/words";
import { CellField } from "../../ui/CellField";
import { Choice, Option, Options } from "../../ui/Choice";
import { MomentField } from "../../ui/DayField";
import { Toggles } from "../../ui/Toggles";
import { lastRater, rememberRater } from "./rater";
import type { Look, Soak } from "./soak";
import { firstOpen, sideOf } from "./turns";

/** Which side of which coupon is looked at, in which stage, and when. */
export interface Whose {
  readonly coupon: string;
  readonly side: Look["side"];
  readonly stage: Look["stage"];
  readonly region: Look["region"];
  readonly at: string;
  readonly seen_by: string;
}

/** As it is kept, or as it was asked for; else what is open first. */
export function whoseOf(soak: Soak, look: Look | undefined, asked: URLSearchParams): Whose {
  const first = firstOpen(soak);
  return {
    coupon: look?.coupon_id ?? asked.get("coupon") ?? first.coupon,
    side: look?.side ?? ((asked.get("side") as Look["side"]) || first.side),
    stage: look?.stage ?? ((asked.get("stage") as Look["stage"]) || first.stage),
    region: look?.region ?? "",
    seen_by: look?.seen_by ?? lastRater(),
    at: momentOf(look ? new Date(look.at_utc) : atHour(soak, asked.get("h"))),
  };
}

/** The moment at an hour of the soak; now where none is named. */
function atHour(soak: Soak, hours: string | null): Date {
  if (hours === null || !soak.started_utc) return new Date();
  return new Date(new Date(soak.started_utc).getTime() + Number(hours) * 3_600_000);
}

export function WhoseLook({
  soak,
  whose,
  refused,
  onWhose: setWhose,
}: {
  soak: Soak;
  whose: Whose;
  refused: Refused | null;
  onWhose: (whose: Whose) => void;
}) {
  const stages = [...new Set([...soak.how.stages, "scoured" as const])];
  return (
    <div className="mt-4 flex flex-wrap items-end gap-x-6 gap-y-3">
      <Choice
        label="Coupon"
        className="min-w-40"
        value={whose.coupon}
        onPick={(v) => setWhose({ ...whose, coupon: v, side: sideOf(soak, v, whose.side) })}
        error={refused?.at("coupon_id")}
      >
        {soak.coupons.map((each) => (
          <Option key={each.id} value={each.id}>
            {each.called}
          </Option>
        ))}
      </Choice>
      <Toggles
        says="Side"
        value={whose.side}
        onPick={(side) => setWhose({ ...whose, side })}
        choices={WORDS.sides}
      />
      <Toggles
        says="Stage"
        value={whose.stage}
        onPick={(stage) => setWhose({ ...whose, stage })}
        choices={stages.map((stage) => [stage, labelOf("inspectionStages", stage)] as const)}
      />
      <Choice
        label="Where"
        className="min-w-44"
        value={whose.region}
        onPick={(v) => setWhose({ ...whose, region: v as Look["region"] })}
      >
        <Options of={WORDS.regions} />
      </Choice>
      <MomentField
        label="When"
        value={whose.at}
        onChange={(e) => setWhose({ ...whose, at: e.target.value })}
        error={refused?.at("at")}
      />
    </div>
  );
}

/** Who inspects: remembered on this device, so that it is typed once. */
export function InspectedBy({
  whose,
  refused,
  onWhose: setWhose,
}: {
  whose: Whose;
  refused: Refused | null;
  onWhose: (whose: Whose) => void;
}) {
  return (
    <span className="flex items-center gap-2 text-note text-ink-2">
      Inspected by
      <CellField
        says="Inspected by"
        className="w-44"
        value={whose.seen_by}
        onChange={(event) => {
          rememberRater(event.target.value);
          setWhose({ ...whose, seen_by: event.target.value });
        }}
        error={refused?.at("seen_by")}
      />
    </span>
  );
}
