/** Drawings of the three ways to begin; what they show is said beside them. */

const WIDTH = 320;
const HEIGHT = 104;

function Drawing({ children }: { children: React.ReactNode }) {
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full max-w-[320px]"
      role="presentation"
      aria-hidden="true"
    >
      {children}
    </svg>
  );
}

const CUTS = Array.from({ length: 12 }, (_, i) => i);

/** A blade that has cut a dozen times, each cut a stroke at its edge, over rope. */
export function WearDrawing() {
  return (
    <Drawing>
      <path d="M10,14H246L300,52H10Z" fill="var(--steel)" stroke="var(--ink)" strokeWidth="1.5" />
      <path d="M10,40H283L300,52H10Z" fill="var(--steel-2)" />
      {CUTS.map((i) => (
        <line
          key={i}
          x1={46 + i * 16}
          x2={46 + i * 16}
          y1="54"
          y2={60 + (i % 4) * 2}
          stroke="var(--ink)"
          strokeWidth={1.5 + i * 0.22}
        />
      ))}
      <rect x="10" y="76" width="290" height="20" rx="10" fill="var(--hemp)" />
      {CUTS.map((i) => (
        <path
          key={i}
          d={`M${22 + i * 24},96C${30 + i * 24},90 ${26 + i * 24},82 ${36 + i * 24},76`}
          fill="none"
          stroke="var(--kraft)"
          strokeWidth="2"
        />
      ))}
    </Drawing>
  );
}

/** Where each five of the tally stands, and its strokes; the last is not full. */
const FIVES = [
  ...[62, 100, 138, 176, 214].map((x) => ({ x, y: 22, strokes: 5 })),
  { x: 62, y: 60, strokes: 5 },
  { x: 100, y: 60, strokes: 5 },
  { x: 138, y: 60, strokes: 3 },
];

/** A sheet with tallies in fives, the last one not full. */
export function TallyDrawing() {
  return (
    <Drawing>
      <path d="M40,6H258L280,28V98H40Z" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.5" />
      <path d="M258,6V28H280" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      {FIVES.map(({ x, y, strokes }) => (
        <path
          key={`${x} ${y}`}
          d={tally(x, y, strokes)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="2.2"
          strokeLinecap="round"
        />
      ))}
    </Drawing>
  );
}

function tally(x: number, y: number, strokes: number): string {
  const upright = [0, 6, 12, 18].slice(0, strokes).map((step) => `M${x + step},${y}l1,24`);
  return [...upright, strokes === 5 ? `M${x - 4},${y + 20}L${x + 23},${y + 5}` : ""].join("");
}

/** Three blocks, in each of which two blades change places. */
export function OrderDrawing() {
  return (
    <Drawing>
      {[0, 1, 2].map((block) => (
        <g key={block}>
          <rect
            x={14 + block * 100}
            y="14"
            width="84"
            height="76"
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth="1.5"
          />
          {[0, 1].map((place) => (
            <Knife
              key={place}
              x={24 + block * 100}
              y={28 + place * 34}
              isFirst={(block + place) % 2 === 0}
            />
          ))}
        </g>
      ))}
    </Drawing>
  );
}

function Knife({ x, y, isFirst }: { x: number; y: number; isFirst: boolean }) {
  return (
    <path
      d={`M${x},${y}H${x + 50}L${x + 64},${y + 14}H${x}Z`}
      fill={isFirst ? "var(--next)" : "var(--hemp)"}
    />
  );
}
