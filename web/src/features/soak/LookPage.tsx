import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { measuringQuery, soakQuery } from "../../api/queries";
import { putLook, strikeLook } from "../../api/soaks";
import { isMoment } from "../../domain/days";
import { newId } from "../../domain/ids";
import { labelOf } from "../../domain/words";
import { Button, buttonLook } from "../../ui/Button";
import { LongField } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Page } from "../../ui/Page";
import { Failed, Waiting } from "../../ui/State";
import { Toggles } from "../../ui/Toggles";
import { ChoosePicture } from "./ChoosePicture";
import { MoreSeen } from "./MoreSeen";
import { Pictured } from "./Pictured";
import type { Measuring } from "./pictureTools";
import { QuickLook } from "./QuickLook";
import { emptySeen, type Seen, seenOf } from "./seen";
import { type Look, moment, type Soak } from "./soak";
import { earlierLook, following } from "./turns";
import { InspectedBy, WhoseLook, whoseOf } from "./WhoseLook";

/** One look: whose, in which stage, and what was seen, by eye or in a picture. */
export function LookPage() {
  const { soakId = "" } = useParams();
  const [search] = useSearchParams();
  const soak = useQuery(soakQuery(soakId));
  const lookId = search.get("look") ?? "";
  const kept = useQuery({ ...measuringQuery(soakId, lookId), enabled: Boolean(lookId) });
  if (soak.isPending || (lookId && kept.isPending)) return <Waiting what="the inspection" />;
  if (soak.isError) return <Failed error={soak.error} onRetry={() => void soak.refetch()} />;
  const look = soak.data.looks.find((each) => each.id === lookId);
  return (
    <Looking
      key={lookId || `${search.get("coupon")}-${search.get("side")}-${search.get("stage")}`}
      soak={soak.data}
      look={look}
      measured={kept.data?.measuring ?? null}
    />
  );
}

function Looking({
  soak,
  look,
  measured,
}: {
  soak: Soak;
  look: Look | undefined;
  measured: Measuring | null;
}) {
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const [id] = useState(() => look?.id ?? newId());
  const [whose, setWhose] = useState(() => whoseOf(soak, look, search));
  const [hash, setHash] = useState(look?.picture ?? search.get("picture") ?? "");
  const [way, setWay] = useState<"eye" | "picture">(hash ? "picture" : "eye");
  const [measuring, setMeasuring] = useState<Measuring>(measured ?? { outline: [] });
  const [seen, setSeen] = useState<Seen>(look ? seenOf(look) : emptySeen);
  const [unread, setUnread] = useState({ area: false, more: false });
  const save = useChange(
    (body: Schemas["LookBody"]) => putLook(soak.id, id, body),
    () => next(),
  );
  const strike = useChange(
    (reason: string) => strikeLook(soak.id, id, reason),
    () => navigate(`/soak/${soak.id}`),
  );
  const refused = save.error instanceof Refused ? save.error : null;
  const coupon = soak.coupons.find((each) => each.id === whose.coupon);
  const earlier = earlierLook(soak, whose, id);
  const after = look ? null : following(soak, whose);
  const next = () => {
    if (!after) navigate(`/soak/${soak.id}`);
    else setSearch({ coupon: after.coupon, side: after.side, stage: after.stage });
  };
  const busy = save.isPending || unread.area || unread.more;
  const keep = (more: Partial<Schemas["LookBody"]>) => {
    if (busy || !isMoment(whose.at)) return;
    save.mutate({
      ...moment(whose.at),
      coupon_id: whose.coupon,
      side: whose.side,
      stage: whose.stage,
      region: whose.region,
      seen_by: whose.seen_by,
      ...seen,
      ...(way === "picture" && hash
        ? { picture: hash, measuring: measuring.outline.length ? measuring : null }
        : { picture: hash }),
      ...more,
    });
  };
  return (
    <Page>
      <Note>
        <Link className="underline underline-offset-4" to={`/soak/${soak.id}`}>
          {soak.name}
        </Link>
        {look ? `, at ${look.exposure_h.toFixed(1)} h` : `, at ${soak.hours.toFixed(1)} h`}
      </Note>
      <div className="flex flex-wrap items-start justify-between gap-x-8 gap-y-3">
        <h1 className="answer mt-1">
          {coupon?.called ?? "Which coupon"}
          {whose.side === "both" ? "" : `, ${whose.side} side`},{" "}
          {labelOf("inspectionStages", whose.stage)}
          {look?.struck ? ` (excluded: ${look.struck})` : ""}
        </h1>
        <Button kind="next" disabled={busy} onClick={() => keep({})}>
          {look ? "Save changes" : after ? `Save, then ${after.says}` : "Save inspection"}
        </Button>
      </div>
      <WhoseLook soak={soak} whose={whose} refused={refused} onWhose={setWhose} />
      <Notice
        className="mt-3 font-medium"
        says={AT_FIELDS.includes(refused?.problem.field ?? "") ? undefined : save.error?.message}
      />
      <div className="mt-5 flex flex-wrap items-center justify-between gap-x-8 gap-y-2">
        <Toggles
          says="Read"
          value={way}
          onPick={(picked) => {
            setWay(picked);
            setUnread({ ...unread, area: false }); // its fields are made anew
          }}
          choices={[
            ["eye", "By eye"],
            ["picture", "In a picture"],
          ]}
        />
        <InspectedBy whose={whose} refused={refused} onWhose={setWhose} />
      </div>
      <div className="mt-4">
        {way === "eye" ? (
          <QuickLook
            isPaste={isOnShades(soak, look, whose.side)}
            seen={seen}
            refused={refused}
            busy={busy}
            onSeen={setSeen}
            onUnread={(area) => setUnread({ ...unread, area })}
            onKeep={keep}
          />
        ) : hash ? (
          <Pictured
            hash={hash}
            measuring={measuring}
            earlierLook={earlier}
            onChange={setMeasuring}
          />
        ) : (
          <ChoosePicture soak={soak} onPick={setHash} />
        )}
      </div>
      <MoreSeen
        seen={seen}
        refused={refused}
        onSeen={setSeen}
        onUnread={(more) => setUnread({ ...unread, more })}
      />
      <LongField
        label="Note"
        className="mt-3 max-w-3xl"
        value={seen.note}
        onChange={(e) => setSeen({ ...seen, note: e.target.value })}
      />
      <div className="flex flex-wrap gap-3 pt-3 pb-8">
        {hash && way === "picture" ? (
          <Button kind="quiet" onClick={() => setHash("")}>
            Another picture
          </Button>
        ) : null}
        {look ? (
          <Button
            kind={look.struck ? "plain" : "danger"}
            onClick={() => strike.mutate(look.struck ? "" : "read wrongly")}
          >
            {look.struck ? "Include again" : "Exclude"}
          </Button>
        ) : null}
        <Link className={buttonLook("quiet")} to={`/soak/${soak.id}`}>
          Back to the soak
        </Link>
      </div>
    </Page>
  );
}

/** Whether a side is read on how far it discoloured: as it was, or as its phase has it now. */
const isOnShades = (soak: Soak, look: Look | undefined, side: Look["side"]) =>
  look ? look.discolouration !== null : soak.scales[side] === "discolouration";

const AT_FIELDS = [
  "at",
  "coupon_id",
  "rust_percent",
  "rust_low",
  "rust_high",
  "pits",
  "deepest_pit_mm",
  "count",
  "size_mm",
  "side_cm2",
  "stain_percent",
];
