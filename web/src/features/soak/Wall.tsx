import { Link } from "react-router";
import { folderAddress } from "../../api/folder";
import { labelOf } from "../../domain/words";
import { Mark } from "../../ui/Mark";
import { Table } from "../../ui/Table";
import { AreaBar } from "./AreaBar";
import { byPlace } from "./series";
import type { Coupon, Look, Soak } from "./soak";

/** Coupons along time: a row a coupon, a column a round; each side and stage as it was seen. */
export function Wall({ soak }: { soak: Soak }) {
  const hours = [...new Set(soak.looks.map((look) => look.together_h))].sort((a, b) => a - b);
  return (
    <div className="mt-5">
      <Table
        heads={["coupon", ...hours.map((hour) => roundHead(soak, hour))]}
        cell="pr-4 pb-1"
        className="w-max min-w-full"
        scrolls="Coupons along time"
      >
        {soak.coupons.map((coupon, place) => (
          <Row key={coupon.id} soak={soak} coupon={coupon} place={place} hours={hours} />
        ))}
      </Table>
    </div>
  );
}

/** The hour of a round, and the medium where that changes on the way. */
function roundHead(soak: Soak, hour: number) {
  const medium = soak.rounds.find((round) => round.from_h === hour)?.medium;
  return {
    key: String(hour),
    name: medium ? `${hourHead(hour)} · ${medium}` : hourHead(hour),
  };
}

const hourHead = (hour: number) =>
  hour < 72 ? `${Number(hour.toFixed(hour < 10 ? 1 : 0))} h` : `${(hour / 24).toFixed(1)} days`;

function Row({
  soak,
  coupon,
  place,
  hours,
}: {
  soak: Soak;
  coupon: Coupon;
  place: number;
  hours: readonly number[];
}) {
  const own = soak.looks.filter((look) => look.coupon_id === coupon.id);
  return (
    <tr className="border-t border-line align-top">
      <th
        scope="row"
        className="sticky left-0 bg-paper py-2 pr-4 text-left font-semibold whitespace-nowrap"
      >
        <span className="flex items-center gap-2">
          <Mark mark={coupon.blade_id ? coupon.mark : place} size={18} />
          {coupon.called}
        </span>
        <span className="cond block text-note font-normal text-ink-2">
          {[coupon.steel, coupon.role === "baseline" ? "must rust" : "", coupon.coating, coupon.oil]
            .filter(Boolean)
            .join(" · ")}
        </span>
      </th>
      {hours.map((hour) => (
        <td key={hour} className="py-2 pr-4">
          <div className="flex flex-col gap-1">
            {byPlace(own.filter((look) => look.together_h === hour)).map(([last, ...before]) =>
              last ? (
                <div key={last.id}>
                  <Seen soak={soak} look={last} />
                  <Before soak={soak} looks={before} />
                </div>
              ) : null,
            )}
          </div>
        </td>
      ))}
    </tr>
  );
}

/** What the same place showed earlier in the round. */
function Before({ soak, looks }: { soak: Soak; looks: readonly Look[] }) {
  if (looks.length === 0) return null;
  return (
    <details>
      <summary className="cond cursor-pointer text-note text-ink-2">
        and {looks.length} before it
      </summary>
      {looks.map((look) => (
        <Seen key={look.id} soak={soak} look={look} />
      ))}
    </details>
  );
}

function Seen({ soak, look }: { soak: Soak; look: Look }) {
  const where = [look.side === "both" ? "" : look.side, labelOf("inspectionStages", look.stage)]
    .filter(Boolean)
    .join(" ");
  const by = `${look.seen_by ? `, ${look.seen_by}` : ""}${look.blind ? ", without names" : ""}`;
  const region = look.region ? `, ${look.region.replace("_", " ")}` : "";
  const read = look.picture && (look.how === "photo" || look.how === "brush");
  return (
    <Link
      to={`/soak/${soak.id}/look?look=${look.id}`}
      aria-label={`${where}${region}: ${look.area_says || (look.discolouration ?? "seen")}`}
      className={`grid items-center gap-x-3 rounded-edge bench:grid-cols-[auto_1fr] hover:bg-kraft/40
        ${look.struck ? "opacity-45 line-through" : ""}`}
    >
      {read ? (
        <img
          src={folderAddress(`/api/soaks/${soak.id}/looks/${look.id}/strip`)}
          alt=""
          loading="lazy"
          width={190}
          height={38}
          className="h-[38px] w-[190px] rounded-edge object-fill"
        />
      ) : look.rust_high !== null ? (
        <AreaBar look={look} />
      ) : null}
      <span className="cond text-note whitespace-nowrap">
        <span className="text-ink-2">
          {where}
          {region}
          {by}
        </span>{" "}
        <span className="font-semibold">{short(look)}</span>
      </span>
    </Link>
  );
}

/** The area alone; its interval stands on the page of the look. */
function short(look: Look): string {
  if (look.rust_percent !== null) return `${honestPercent(look.rust_percent)} %`;
  if (look.rust_low !== null && look.rust_high !== null)
    return span(honestPercent(look.rust_low), honestPercent(look.rust_high));
  if (look.discolouration !== null) return labelOf("discolourations", look.discolouration);
  return [look.pivot, look.lock, look.handle].filter(Boolean).join(", ");
}

const span = (low: string, high: string) => (low === high ? `${low} %` : `${low} to ${high} %`);

function honestPercent(value: number): string {
  if (value < 0.005) return "0";
  return value < 1 ? value.toFixed(2) : value < 20 ? value.toFixed(1) : value.toFixed(0);
}
