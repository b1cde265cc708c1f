import { scaleLinear, scaleLog } from "d3-scale";
import { line } from "d3-shape";
import { useId } from "react";
import { markOf, markPath } from "../domain/marks";
import type { Span } from "./useChartView";

export interface CoursePoint {
  readonly hours: number;
  readonly stage: string;
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

export interface Course {
  readonly id: string;
  readonly name: string;
  readonly mark: number;
  readonly points: readonly CoursePoint[];
}

const LEAST = 0.01;
const LEFT = 58;
const PER_LETTER = 7.2;

/**
 * Rusted area along the hours, on a scale of ten times: a line through what was found, its interval
 * as a band, and a hollow mark for what was left after wiping.
 */
export function RustCourse({
  courses,
  span,
  needed,
  phases = [],
  width,
}: {
  courses: readonly Course[];
  /** The hours that are shown. */
  span: Span;
  needed: number | null;
  phases?: readonly { readonly medium: string; readonly from_h: number }[];
  width: number;
}) {
  const height = 300;
  const clip = useId();
  const right = 34 + PER_LETTER * Math.max(6, ...courses.map((c) => c.name.length));
  const x = scaleLinear([...span], [LEFT, width - right]);
  const y = scaleLog([100, LEAST], [12, height - 34]);
  const at = (area: number) => y(Math.max(area, LEAST));
  const ends = spread(
    courses.flatMap((course) => {
      const last =
        course.points.filter((p) => p.stage === "as_found").at(-1) ?? course.points.at(-1);
      return last ? [{ course, y: at(last.middle) }] : [];
    }),
  );
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={courses.map(said).join("; ") || "no area yet"}
      className="block max-w-full"
    >
      {[100, 10, 1, 0.1, 0.01].map((area) => (
        <g key={area}>
          <line x1={LEFT} x2={width - right} y1={y(area)} y2={y(area)} stroke="var(--line)" />
          <text x={LEFT - 8} y={y(area) + 4} fontSize={13} textAnchor="end" fill="var(--ink-2)">
            {area === LEAST ? "none" : `${area} %`}
          </text>
        </g>
      ))}
      {x.ticks(Math.max(3, Math.floor(width / 140))).map((hour) => (
        <text
          key={hour}
          x={x(hour)}
          y={height - 12}
          fontSize={13}
          textAnchor="middle"
          fill="var(--ink-2)"
        >
          {hour} h
        </text>
      ))}
      {phases
        .filter((phase) => phase.from_h > span[0] && phase.from_h < span[1])
        .map(({ medium, from_h }) => (
          <g key={from_h}>
            <line
              x1={x(from_h)}
              x2={x(from_h)}
              y1={12}
              y2={height - 34}
              stroke="var(--ink-2)"
              strokeDasharray="1 3"
            />
            <text x={x(from_h) + 5} y={24} fontSize={13} fill="var(--ink-2)">
              {medium}
            </text>
          </g>
        ))}
      {needed ? (
        <line
          x1={LEFT}
          x2={width - right}
          y1={at(needed)}
          y2={at(needed)}
          stroke="var(--rust)"
          strokeDasharray="2 5"
          strokeWidth={1.5}
        />
      ) : null}
      <clipPath id={clip}>
        <rect x={LEFT - 6} y={0} width={width - right - LEFT + 24} height={height} />
      </clipPath>
      {courses.map((course) => {
        const look = markOf(course.mark);
        const found = course.points.filter((p) => p.stage === "as_found");
        const left = course.points.filter((p) => p.stage === "wiped" || p.stage === "scoured");
        const path = line<CoursePoint>(
          (p) => x(p.hours),
          (p) => at(p.middle),
        );
        const band = [
          ...found.map((p) => `${x(p.hours)},${at(p.high)}`),
          ...[...found].reverse().map((p) => `${x(p.hours)},${at(p.low)}`),
        ].join(" ");
        return (
          <g key={course.id} data-testid={`course-${course.name}`} clipPath={`url(#${clip})`}>
            <polygon points={band} fill={look.colour} opacity={0.14} />
            <path d={path([...found]) ?? ""} fill="none" stroke={look.colour} strokeWidth={2} />
            {found.map((p) => (
              <path
                key={`f${p.hours}-${p.middle}`}
                d={markPath(look, x(p.hours), at(p.middle), 5)}
                fill={look.colour}
              />
            ))}
            {left.map((p) => (
              <g key={`w${p.hours}-${p.middle}`} stroke={look.colour} fill="var(--paper)">
                <line
                  x1={x(p.hours) + 11}
                  x2={x(p.hours) + 11}
                  y1={at(p.low)}
                  y2={at(p.high)}
                  strokeWidth={1.5}
                />
                <path d={markPath(look, x(p.hours) + 11, at(p.middle), 4.5)} strokeWidth={1.6} />
              </g>
            ))}
          </g>
        );
      })}
      {ends.map(({ course, y: end }) => (
        <text
          key={course.id}
          x={width - right + 30}
          y={end + 4}
          fontSize={13}
          fill={markOf(course.mark).colour}
        >
          {course.name}
        </text>
      ))}
    </svg>
  );
}

/** Labels moved apart, in their order. */
function spread<T extends { y: number }>(labels: T[]): T[] {
  const sorted = [...labels].sort((a, b) => a.y - b.y);
  let last = -100;
  return sorted.map((label) => {
    const y = Math.max(label.y, last + 15);
    last = y;
    return { ...label, y };
  });
}

function said(course: Course): string {
  const points = course.points.map(
    (p) => `${p.middle.toFixed(2)} % ${p.stage.replace("_", " ")} at ${p.hours} h`,
  );
  return `${course.name}: ${points.join(", ") || "not inspected"}`;
}
