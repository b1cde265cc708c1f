import { scaleLinear } from "d3-scale";

export interface Slot {
  readonly name: string;
  readonly low: number | null;
  readonly high: number | null;
  /** Not listed: what is let pass of it. */
  readonly isResidual?: boolean;
}

export interface Pin {
  readonly id: string;
  readonly name: string;
  readonly percent: number;
  readonly plusMinus: number | null;
  readonly detected: boolean;
  readonly faded: boolean;
}

const SIDE = 10;
const LANE = 9;
const PIN_TOP = 12;

/** How far the rule reaches: around what is drawn, from zero where that is near. */
export function reach(slots: readonly Slot[], pins: readonly Pin[]): [number, number] {
  const ends = slots.flatMap((s) => [s.low, s.high]).filter((v) => v !== null);
  const read = pins.flatMap((p) => [
    p.percent - (p.plusMinus ?? 0),
    p.percent + (p.plusMinus ?? 0),
  ]);
  const low = Math.min(...ends, ...read);
  const high = Math.max(...ends, ...read);
  if (!Number.isFinite(high)) return [0, 1];
  const isOpen = slots.some((s) => s.low === null);
  const from = isOpen || low < 0.4 * high ? 0 : low;
  const room = Math.max(high - from, 0.02) * 0.14;
  return [Math.max(from - (from === 0 ? 0 : room), 0), high + room];
}

/**
 * One element as a short rule: the grade's range as a slot milled into it, shots as pins with their
 * ±, the mean as a tick through both. What no analyser sees is left blank.
 */
export function RangeRule({
  name,
  isSeen,
  slots,
  pins,
  mean,
  uncertainty,
  width,
}: {
  name: string;
  isSeen: boolean;
  slots: readonly Slot[];
  pins: readonly Pin[];
  mean: number | null;
  uncertainty: number | null;
  width: number;
}) {
  const lanes = Math.max(slots.length, 1);
  const slotTop = PIN_TOP + 14;
  const floor = slotTop + lanes * LANE + 8;
  const height = floor + 18;
  const [from, to] = reach(slots, pins);
  const x = scaleLinear([from, to], [SIDE, width - SIDE]);
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={described(name, isSeen, slots, pins, mean)}
      className="block max-w-full"
    >
      {isSeen ? null : <Blank width={width} top={3} height={18} />}
      <line x1={SIDE} x2={width - SIDE} y1={floor} y2={floor} stroke="var(--ink-2)" />
      {slots.map((slot, lane) => (
        <SlotShape
          key={slot.name}
          from={x(slot.low ?? from)}
          to={x(slot.high ?? to)}
          isOpen={slot.high === null}
          top={slotTop + lane * LANE}
          isFirst={lane === 0}
          isResidual={slot.isResidual ?? false}
        />
      ))}
      {pins.map((pin, i) => (
        <PinShape
          key={pin.id}
          pin={pin}
          x={(value) => Math.min(Math.max(x(value), SIDE), width - SIDE)}
          top={PIN_TOP - 5 + (i % 3) * 5}
          foot={slotTop - 2}
        />
      ))}
      {mean === null ? null : (
        <g stroke="var(--ink)">
          {uncertainty === null ? null : (
            <line
              x1={Math.max(x(mean - uncertainty), SIDE)}
              x2={Math.min(x(mean + uncertainty), width - SIDE)}
              y1={floor - 3}
              y2={floor - 3}
              strokeWidth={4}
              strokeOpacity={0.35}
            />
          )}
          <line x1={x(mean)} x2={x(mean)} y1={slotTop - 4} y2={floor} strokeWidth={2.5} />
        </g>
      )}
      <g fontSize={11} fill="var(--ink-2)" stroke="none">
        {x.ticks(Math.max(3, Math.floor(width / 80))).map((tick) => (
          <g key={tick}>
            <line x1={x(tick)} x2={x(tick)} y1={floor} y2={floor + 4} stroke="var(--ink-2)" />
            <text x={x(tick)} y={floor + 15} textAnchor="middle">
              {Number(tick.toPrecision(6))}
            </text>
          </g>
        ))}
      </g>
    </svg>
  );
}

function SlotShape({
  from,
  to,
  isOpen,
  top,
  isFirst,
  isResidual,
}: {
  from: number;
  to: number;
  isOpen: boolean;
  top: number;
  isFirst: boolean;
  isResidual: boolean;
}) {
  const isMilled = isFirst && !isResidual;
  return (
    <rect
      x={from}
      y={top}
      width={Math.max(to - from, 3)}
      height={LANE - 1}
      rx={isOpen ? 0 : LANE / 2}
      fill={isMilled ? "var(--steel)" : "none"}
      stroke={isFirst ? "var(--ink)" : "var(--ink-2)"}
      strokeWidth={1.2}
      strokeDasharray={isMilled ? undefined : isResidual ? "1 3" : "4 2"}
    />
  );
}

function PinShape({
  pin,
  x,
  top,
  foot,
}: {
  pin: Pin;
  x: (value: number) => number;
  top: number;
  foot: number;
}) {
  const at = x(pin.percent);
  const spread = pin.plusMinus ?? 0;
  return (
    <g stroke="var(--ink)" opacity={pin.faded ? 0.35 : 1}>
      <line x1={x(pin.percent - spread)} x2={x(pin.percent + spread)} y1={top} y2={top} />
      {pin.detected ? (
        <>
          <line x1={at} x2={at} y1={top} y2={foot} strokeWidth={1.2} />
          <circle cx={at} cy={top} r={2.8} fill={pin.faded ? "var(--paper)" : "var(--ink)"} />
        </>
      ) : (
        <path d={`M${at},${top - 4}L${at - 7},${top}L${at},${top + 4}`} fill="none" />
      )}
    </g>
  );
}

function Blank({ width, top, height }: { width: number; top: number; height: number }) {
  return (
    <g>
      <rect
        x={SIDE}
        y={top}
        width={width - 2 * SIDE}
        height={height}
        fill="none"
        stroke="var(--line)"
        strokeDasharray="2 4"
      />
      <text x={SIDE + 8} y={top + 13} fontSize={11} fill="var(--ink-2)">
        not seen by an analyser in air
      </text>
    </g>
  );
}

function described(
  name: string,
  isSeen: boolean,
  slots: readonly Slot[],
  pins: readonly Pin[],
  mean: number | null,
): string {
  const promised = slots.map((s) => `${s.name} ${s.low ?? 0} to ${s.high ?? "any"} %`).join(", ");
  const read = pins.map((p) => `${p.name}: ${p.detected ? "" : "under "}${p.percent} %`).join(", ");
  const seen = isSeen ? read || "not read" : "not seen";
  const middle = mean === null ? "" : `; mean ${mean.toFixed(3)} %`;
  return `${name}: ${promised || "not listed"}; ${seen}${middle}`;
}
