import { ChartFrame } from "../../charts/ChartFrame";
import { type Course, RustCourse } from "../../charts/RustCourse";
import { labelOf, WORDS } from "../../domain/words";
import { Note } from "../../ui/Note";
import { Heading } from "../../ui/Section";
import { Table } from "../../ui/Table";
import { useWidth } from "../../ui/useWidth";
import { Ladder } from "./Ladder";
import { Phases, Shades } from "./Phases";
import type { Coupon, Soak } from "./soak";

/** What the soak says: the order with shared places, the curves, and why no more can be said. */
export function Answer({ soak }: { soak: Soak }) {
  const { ref, width } = useWidth<HTMLDivElement>(620);
  const { answer } = soak;
  const hasCourse = soak.answer.courses.some(
    (c) => new Set(c.points.map((p) => p.hours.toFixed(1))).size > 1,
  );
  return (
    <section aria-label="Answer" className="mt-8 border-t-[1.5px] border-ink pt-3">
      <div className="grid gap-x-10 gap-y-6 bench:grid-cols-[minmax(0,1fr)_minmax(320px,440px)]">
        <div ref={ref}>
          <WornTable soak={soak} />
          {hasCourse ? (
            <>
              <Heading>Rusted area along the hours</Heading>
              <RustedArea soak={soak} width={width} />
            </>
          ) : null}
          <Reasons soak={soak} />
        </div>
        <div>
          {answer.is_one_answer ? <Ladder soak={soak} /> : null}
          {answer.is_one_answer ? (
            <Shades soak={soak} of={answer.discoloured} className="mt-3" />
          ) : null}
          <Phases soak={soak} />
          <Note className="mt-3">{answer.borrowed}</Note>
        </div>
      </div>
    </section>
  );
}

/** Rusted area along the hours, drawn as the tester wants it. */
function RustedArea({ soak, width }: { soak: Soak; width: number }) {
  const courses = soak.coupons.map((coupon, place) => course(soak, coupon, place));
  return (
    <ChartFrame
      name={`Rusted area, ${soak.name}`}
      caption="Line and band: as found. Hollow marks beside: after wiping."
      series={courses}
      whole={[0, Math.max(soak.whole_h, 1)]}
      numbers={{
        heads: ["coupon", "h", "stage", "rusted area, %", "from, %", "to, %"],
        rows: courses.flatMap(({ name, points }) =>
          points.map((p) => [
            name,
            String(Number(p.hours.toFixed(1))),
            labelOf("inspectionStages", p.stage) || p.stage,
            ...[p.middle, p.low, p.high].map((area) => String(Number(area.toPrecision(3)))),
          ]),
        ),
      }}
    >
      {({ hidden, span }) => (
        <RustCourse
          courses={courses.filter((each) => !hidden.has(each.name))}
          span={span}
          needed={needed(soak)}
          phases={soak.answer.phases}
          width={width}
        />
      )}
    </ChartFrame>
  );
}

/** Why no more can be said, each reason once. */
function Reasons({ soak }: { soak: Soak }) {
  const { answer } = soak;
  return (
    <ul className="mt-4 flex max-w-2xl flex-col gap-2">
      {[...answer.coatings, ...answer.reasons].map((reason) => (
        <li key={reason} className="border-l-4 border-line pl-3">
          {reason}
        </li>
      ))}
    </ul>
  );
}

/** The wear part of a coating trial, beside its rust where it was worn. */
function WornTable({ soak }: { soak: Soak }) {
  const { worn } = soak.answer;
  if (worn.length === 0) return null;
  return (
    <>
      <Heading>Worn first</Heading>
      <Table
        scrolls="Worn first"
        heads={["coupon", "wear, and rust", "rusted at the worn place"]}
        cell="pr-6"
        className="mt-1 mb-6"
      >
        {worn.map((each) => (
          <tr key={each.coupon_id} className="border-t border-line">
            <th className="py-1 pr-6 text-left font-semibold">
              {soak.coupons.find((c) => c.id === each.coupon_id)?.called}
            </th>
            <td className="py-1 pr-6">{each.counts.join("; ")}</td>
            <td className="py-1">{each.rust_where_worn || "not inspected"}</td>
          </tr>
        ))}
      </Table>
    </>
  );
}

/** The area from which on the baseline has rusted enough: the edge of its grade. */
function needed(soak: Soak): number | null {
  return soak.how.scale === "rust" ? soak.answer.needed_percent : null;
}

/** Whether a side was seen several times in a round, as in a time-lapse: then each is a point. */
function hasRepeats(points: Soak["answer"]["courses"][number]["points"]): boolean {
  const places = points.map(({ round_h, stage, side }) => `${round_h}|${stage}|${side}`);
  return new Set(places).size < places.length;
}

function course(soak: Soak, coupon: Coupon, place: number): Course {
  const found = soak.answer.courses.find((c) => c.coupon_id === coupon.id);
  const isSeries = hasRepeats(found?.points ?? []);
  const groups = new Map<string, { hours: number; stage: string; areas: number[][] }>();
  for (const point of found?.points ?? []) {
    const when = isSeries ? point.hours.toFixed(2) : point.round_h;
    const key = `${when}|${point.stage}`;
    const group = groups.get(key) ?? { hours: point.hours, stage: point.stage, areas: [] };
    const middle = point.area.best ?? (point.area.low + point.area.high) / 2;
    group.areas.push([point.area.low, middle, point.area.high]);
    groups.set(key, group);
  }
  const order = WORDS.inspectionStages.map(([stage]) => stage as string);
  const points = [...groups.values()]
    .sort((a, b) => a.hours - b.hours || order.indexOf(a.stage) - order.indexOf(b.stage))
    .map(({ hours, stage, areas }) => ({
      hours,
      stage,
      low: Math.min(...areas.map((a) => a[0] ?? 0)),
      middle: areas.reduce((sum, a) => sum + (a[1] ?? 0), 0) / areas.length,
      high: Math.max(...areas.map((a) => a[2] ?? 0)),
    }));
  return {
    id: coupon.id,
    name: coupon.called,
    mark: coupon.blade_id ? coupon.mark : place,
    points,
  };
}
