import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { measuringQuery, soakQuery } from "../../api/queries";
import { addPictures, putLook, strikeLook } from "../../api/soaks";
import { newId } from "../../domain/ids";
import { Button, buttonLook } from "../../ui/Button";
import { Choice, Option } from "../../ui/Choice";
import { Field, LongField } from "../../ui/Field";
import { FilePick } from "../../ui/FilePick";
import { Failed, Waiting } from "../../ui/State";
import { Toggles } from "../../ui/Toggles";
import { MoreSeen } from "./MoreSeen";
import type { Measuring } from "./PictureBoard";
import { PictureLook } from "./PictureLook";
import { QuickLook } from "./QuickLook";
import { refusedPictures } from "./refused";
import { emptySeen, type Seen, seenOf } from "./seen";
import { type Look, moment, REGIONS, SIDES, type Soak, stageName, typedMoment } from "./soak";

/** One look: whose, in which stage, and what was seen, by eye or in a picture. */
export function LookPage() {
  const { soakId = "" } = useParams();
  const [search] = useSearchParams();
  const soak = useQuery(soakQuery(soakId));
  const lookId = search.get("look") ?? "";
  const kept = useQuery({ ...measuringQuery(soakId, lookId), enabled: Boolean(lookId) });
  if (soak.isPending || (lookId && kept.isPending)) return <Waiting what="the look" />;
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
  const first = firstOpen(soak);
  const [whose, setWhose] = useState({
    coupon: look?.coupon_id ?? search.get("coupon") ?? first.coupon,
    side: look?.side ?? ((search.get("side") as Look["side"]) || first.side),
    stage: look?.stage ?? ((search.get("stage") as Look["stage"]) || first.stage),
    region: look?.region ?? "",
    at: typedMoment(look ? new Date(look.at_utc) : atHour(soak, search.get("h"))),
  });
  const [hash, setHash] = useState(look?.picture ?? search.get("picture") ?? "");
  const [way, setWay] = useState<"eye" | "picture">(hash ? "picture" : "eye");
  const [measuring, setMeasuring] = useState<Measuring>(measured ?? { outline: [] });
  const [seen, setSeen] = useState<Seen>(look ? seenOf(look) : emptySeen);
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
  const stages = [...new Set([...soak.how.stages, "scoured" as const])];
  const after = look ? null : following(soak, whose);
  const next = () => {
    if (!after) navigate(`/soak/${soak.id}`);
    else setSearch({ coupon: after.coupon, side: after.side, stage: whose.stage });
  };
  const keep = (more: Partial<Schemas["LookBody"]>) =>
    save.mutate({
      ...moment(whose.at),
      coupon_id: whose.coupon,
      side: whose.side,
      stage: whose.stage,
      region: whose.region,
      ...seen,
      ...(way === "picture" && hash
        ? { picture: hash, measuring: measuring.outline.length ? measuring : null }
        : { picture: hash }),
      ...more,
    });
  return (
    <div className="mx-auto max-w-[1280px] px-4 pt-6 bench:px-7">
      <p className="text-note text-ink-2">
        <Link className="underline underline-offset-4" to={`/soak/${soak.id}`}>
          {soak.name}
        </Link>
        {look ? `, at ${look.exposure_h.toFixed(1)} h` : `, at ${soak.hours.toFixed(1)} h`}
      </p>
      <div className="flex flex-wrap items-start justify-between gap-x-8 gap-y-3">
        <h1 className="answer mt-1">
          {coupon?.called ?? "Which coupon"}
          {whose.side === "both" ? "" : `, ${whose.side} side`}, {stageName(whose.stage)}
          {look?.struck ? ` (struck: ${look.struck})` : ""}
        </h1>
        <Button kind="next" disabled={save.isPending} onClick={() => keep({})}>
          {look ? "Keep the changes" : after ? `Keep, then ${after.says}` : "Keep the look"}
        </Button>
      </div>
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
          choices={SIDES}
        />
        <Toggles
          says="Stage"
          value={whose.stage}
          onPick={(stage) => setWhose({ ...whose, stage })}
          choices={stages.map((stage) => [stage, stageName(stage)] as const)}
        />
        <Choice
          label="Where"
          className="min-w-44"
          value={whose.region}
          onPick={(v) => setWhose({ ...whose, region: v as Look["region"] })}
        >
          {REGIONS.map(([value, name]) => (
            <Option key={value} value={value}>
              {name}
            </Option>
          ))}
        </Choice>
        <Field
          label="When"
          type="datetime-local"
          value={whose.at}
          onChange={(e) => setWhose({ ...whose, at: e.target.value })}
          error={refused?.at("at")}
        />
      </div>
      {refused?.at("stage") ? (
        <p role="alert" className="mt-2 font-medium text-rust">
          {refused.message}
        </p>
      ) : null}
      {save.error && !AT_FIELDS.includes(refused?.problem.field ?? "") ? (
        <p role="alert" className="mt-3 font-medium text-rust">
          {save.error.message}
        </p>
      ) : null}
      <div className="mt-5">
        <Toggles
          says="How it is read"
          value={way}
          onPick={setWay}
          choices={[
            ["eye", "By eye"],
            ["picture", "In a picture"],
          ]}
        />
      </div>
      <div className="mt-4">
        {way === "eye" ? (
          <QuickLook
            isPaste={soak.how.scale === "discolouration"}
            seen={seen}
            refused={refused}
            busy={save.isPending}
            onSeen={setSeen}
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
      <MoreSeen seen={seen} refused={refused} onSeen={setSeen} />
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
            {look.struck ? "Let it count again" : "Strike it out"}
          </Button>
        ) : null}
        <Link className={buttonLook("quiet")} to={`/soak/${soak.id}`}>
          Back to the soak
        </Link>
      </div>
    </div>
  );
}

/** The moment at an hour of the soak; now where none is named. */
function atHour(soak: Soak, hours: string | null): Date {
  if (hours === null || !soak.started_utc) return new Date();
  return new Date(new Date(soak.started_utc).getTime() + Number(hours) * 3_600_000);
}

const AT_FIELDS = [
  "stage",
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

type Whose = { coupon: string; side: Look["side"]; stage: Look["stage"] };

/** Sides of a coupon that are looked at. */
function sides(soak: Soak, couponId: string): Look["side"][] {
  const coupon = soak.coupons.find((each) => each.id === couponId);
  return coupon?.side && coupon.side !== "both" ? [coupon.side] : ["left", "right"];
}

const sideOf = (soak: Soak, couponId: string, wanted: Look["side"]) => {
  const own = sides(soak, couponId);
  return own.includes(wanted) ? wanted : (own[0] ?? "both");
};

const isSeenNow = (soak: Soak, whose: Whose) =>
  soak.looks.some(
    (look) =>
      !look.struck &&
      look.coupon_id === whose.coupon &&
      look.side === whose.side &&
      look.stage === whose.stage &&
      Math.abs(look.clock_h - soak.clock_h) < 0.5,
  );

const turns = (soak: Soak, stage: Look["stage"]): Whose[] =>
  soak.coupons.flatMap((c) => sides(soak, c.id).map((side) => ({ coupon: c.id, side, stage })));

/** The first side that has not been looked at now, stage by stage. */
function firstOpen(soak: Soak): Whose {
  const all = soak.how.stages.flatMap((stage) => turns(soak, stage));
  const stage = soak.how.stages[0] ?? "as_found";
  return (
    all.find((whose) => !isSeenNow(soak, whose)) ??
    all[0] ?? { coupon: soak.coupons[0]?.id ?? "", side: "both", stage }
  );
}

/** The side after this one, of the same stage; null after the last. */
function following(soak: Soak, whose: Whose): (Whose & { says: string }) | null {
  const all = turns(soak, whose.stage);
  const here = all.findIndex((t) => t.coupon === whose.coupon && t.side === whose.side);
  const next = all.slice(here + 1).find((turn) => !isSeenNow(soak, turn));
  if (!next) return null;
  const name = soak.coupons.find((c) => c.id === next.coupon)?.called ?? "";
  return { ...next, says: next.side === "both" ? name : `${name} ${next.side}` };
}

/** The last look at this side before, in a picture: its outline can be carried over. */
function earlierLook(soak: Soak, whose: Whose & { at: string }, id: string): string {
  const now = new Date(whose.at).getTime();
  const before = soak.looks.filter(
    (look) =>
      look.id !== id &&
      !look.struck &&
      look.coupon_id === whose.coupon &&
      look.side === whose.side &&
      look.picture &&
      (look.how === "photo" || look.how === "brush") &&
      new Date(look.at_utc).getTime() <= now + 60_000,
  );
  return before.sort((a, b) => a.clock_h - b.clock_h).at(-1)?.id ?? "";
}

function Pictured({
  hash,
  measuring,
  earlierLook: earlier,
  onChange,
}: {
  hash: string;
  measuring: Measuring;
  earlierLook: string;
  onChange: (measuring: Measuring) => void;
}) {
  const [size, setSize] = useState<readonly [number, number] | null>(null);
  useEffect(() => {
    const image = new Image();
    image.onload = () => setSize([image.naturalWidth, image.naturalHeight]);
    image.src = `/api/pictures/${hash}`;
  }, [hash]);
  if (!size) return <p className="text-ink-2">Reading the picture …</p>;
  return <PictureLook {...{ hash, size, measuring, onChange }} earlierLook={earlier} />;
}

function ChoosePicture({ soak, onPick }: { soak: Soak; onPick: (hash: string) => void }) {
  const add = useChange(async (files: File[]) => {
    const made = await addPictures(soak.id, files);
    if (made[0] && made.length === 1) onPick(made[0].hash);
  });
  return (
    <div className="max-w-3xl">
      <FilePick
        label="Pictures of this look, JPEG, PNG or WebP; where they were taken is left out"
        accept="image/jpeg,image/png,image/webp"
        onPick={(files) => (files.length ? add.mutate(files) : undefined)}
        isWrong={Boolean(add.error)}
      />
      {add.error ? (
        <p role="alert" className="mt-1 font-medium text-rust">
          {refusedPictures(add.error)}
        </p>
      ) : null}
      {add.isPending ? <p className="mt-1 text-ink-2">Keeping them …</p> : null}
      {soak.pictures.length ? (
        <>
          <h2 className="mt-4 text-lead font-bold">On the time line, not read yet</h2>
          <ul className="mt-2 flex flex-wrap gap-3">
            {soak.pictures.map((picture) => (
              <li key={picture.hash}>
                <button
                  type="button"
                  className="cursor-pointer rounded-edge border-[1.5px] border-line p-1 text-left"
                  onClick={() => onPick(picture.hash)}
                >
                  <img
                    src={`/api/pictures/${picture.hash}`}
                    alt=""
                    width={200}
                    height={80}
                    loading="lazy"
                    className="h-20 w-50 object-cover"
                  />
                  <span className="text-note">
                    {picture.taken_at.replace("T", " ") || "no time in it"}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </div>
  );
}
