import type { Schemas } from "../../api/client";
import { markOf } from "../../domain/marks";
import { Mark } from "../../ui/Mark";
import { type Head, Table } from "../../ui/Table";
import { laneScale } from "./lanes";

type Chosen = Schemas["ChosenOut"];
type Axis = Schemas["AxisOut"];

const LANE = 120;
const HEIGHT = 16;

/** Every blade with its figures on each axis that is weighed, the first choice on top. */
export function Candidates({
  candidates,
  axes,
}: {
  candidates: readonly Chosen[];
  axes: readonly Axis[];
}) {
  const placed = candidates.filter((each) => each.is_placed);
  const others = candidates.filter((each) => !each.is_placed);
  const heads: Head[] = [
    "Blade",
    ...axes.map((axis) => ({
      key: axis.key,
      name: axis.label,
      hint: axis.more_is_better ? "more is better" : "less is better",
    })),
    "",
  ];
  return (
    <Table scrolls="Choice" heads={heads} caption="Blades by what is weighed, first choice on top">
      {placed.map((each, at) => (
        <Row key={each.id} chosen={each} axes={axes} all={candidates} isFirst={at === 0} />
      ))}
      {others.length ? (
        <tr>
          <th
            scope="rowgroup"
            colSpan={axes.length + 2}
            className="pt-4 pb-1 text-left text-lead font-bold"
          >
            Not placed: something that is weighed is not known
          </th>
        </tr>
      ) : null}
      {others.map((each) => (
        <Row key={each.id} chosen={each} axes={axes} all={candidates} isFirst={false} />
      ))}
    </Table>
  );
}

function Row({
  chosen,
  axes,
  all,
  isFirst,
}: {
  chosen: Chosen;
  axes: readonly Axis[];
  all: readonly Chosen[];
  isFirst: boolean;
}) {
  return (
    <tr className={`border-b border-line align-top ${chosen.is_beaten ? "text-ink-2" : ""}`}>
      <th scope="row" className="py-2 pr-4 text-left font-normal">
        <span className="flex items-center gap-2">
          <Mark mark={chosen.mark} />
          <span>
            <b className={`whitespace-nowrap ${isFirst ? "text-lead" : ""}`}>{chosen.name}</b>
            <span className="block text-note text-ink-2">
              {chosen.grade === chosen.name ? "" : chosen.grade}
            </span>
          </span>
        </span>
      </th>
      {axes.map((axis) => (
        <td key={axis.key} className="py-2 pr-4">
          <Lane axis={axis} chosen={chosen} all={all} />
        </td>
      ))}
      <td className="max-w-56 py-2 text-note text-ink-2">{chosen.says}</td>
    </tr>
  );
}

function Lane({ axis, chosen, all }: { axis: Axis; chosen: Chosen; all: readonly Chosen[] }) {
  const figure = chosen.figures.find((each) => each.axis === axis.key);
  if (!figure) return <span className="text-note text-ink-2">not known</span>;
  const scale = laneScale(axis, all, LANE);
  const least = scale.domain()[0] ?? 0;
  const at = (value: number) => scale(Math.max(value, least));
  const [from, to] = [at(figure.low), at(figure.high)].sort((a, b) => a - b) as [number, number];
  const { colour } = markOf(chosen.mark);
  return (
    <span title={figure.rests_on}>
      <svg width={LANE} height={HEIGHT} aria-hidden="true" className="block">
        <line x1={0} x2={LANE} y1={HEIGHT / 2} y2={HEIGHT / 2} stroke="var(--line)" />
        <rect
          x={from}
          y={4}
          width={Math.max(to - from, 1)}
          height={HEIGHT - 8}
          fill={colour}
          opacity={0.3}
        />
        <rect x={at(figure.value) - 1.5} y={1} width={3} height={HEIGHT - 2} fill={colour} />
      </svg>
      <span className="text-note whitespace-nowrap">{figure.says}</span>
      {axis.key === "toughness" ? (
        <span className="block text-note text-ink-2">{figure.rests_on}</span>
      ) : null}
    </span>
  );
}
