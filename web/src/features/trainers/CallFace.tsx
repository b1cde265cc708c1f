import { scaleLinear } from "d3-scale";
import type { Round } from "../../api/trainers";
import { Mark } from "../../ui/Mark";
import { useWidth } from "../../ui/useWidth";

const [LANE, LEFT, RIGHT] = [30, 60, 24];

/** The lives of two blades, edge by edge, each with its 95 % interval. */
export function CallFace({ blades }: { blades: Round["blades"] }) {
  const { ref, width } = useWidth<HTMLDivElement>(760);
  const most = Math.max(...blades.flatMap((blade) => blade.lives.map((life) => life.high)));
  const x = scaleLinear([0, most], [LEFT, width - RIGHT]).nice();
  return (
    <div ref={ref}>
      {blades.map((blade, mark) => (
        <div key={blade.name} className="flex items-start gap-2 border-b border-line py-2">
          <span className="flex w-14 items-center gap-2 text-lead font-bold">
            <Mark mark={mark} /> {blade.name}
          </span>
          <svg
            width={width - 64}
            height={blade.lives.length * LANE}
            viewBox={`0 0 ${width - 64} ${blade.lives.length * LANE}`}
            role="img"
          >
            <title>
              {`${blade.name}: ${blade.lives.map((life) => life.estimate.toFixed(0)).join(", ")} cuts`}
            </title>
            {blade.lives.map(({ low, estimate, high }, i) => (
              <g key={estimate} transform={`translate(-64,${(i + 0.7) * LANE})`}>
                <line x1={x(low)} x2={x(high)} stroke="var(--ink-2)" strokeWidth={2} />
                <circle cx={x(estimate)} r={5.5} fill="var(--ink)" />
                <text x={x(estimate)} y={-8} fontSize={13} textAnchor="middle">
                  {estimate.toFixed(0)}
                </text>
              </g>
            ))}
          </svg>
        </div>
      ))}
      <p className="mt-1 text-note text-ink-2">
        Cuts to dull of each edge, with 95 % intervals; each edge is another sharpening.
      </p>
    </div>
  );
}
