import { Note } from "../../ui/Note";
import type { Measuring } from "./pictureTools";
import { areaAt, type Rust } from "./rustMap";

/** What was measured in a picture, beside it; the area follows the slider. */
export function AreaFound({
  rust,
  at,
  says,
  works,
  measuring,
  onChange,
}: {
  rust: Rust | null;
  /** The threshold that its spots were counted at. */
  at: number | null;
  says: readonly string[];
  works: boolean;
  measuring: Measuring;
  onChange: (measuring: Measuring) => void;
}) {
  const threshold = measuring.threshold ?? 0.5;
  return (
    <div aria-live="polite">
      {says.map((each) => (
        <p key={each} role="alert" className="mb-2 border-l-4 border-rust bg-rust-soft px-3 py-2">
          {each}
        </p>
      ))}
      {rust ? (
        <>
          <Note>rusted {works ? "(measuring …)" : ""}</Note>
          <p className="answer" data-testid="area">
            {rust.rust_percent === null
              ? "Not measurable by colour alone"
              : `${shown(areaAt(rust, threshold) ?? 0)} %`}
          </p>
          <p className="text-note">
            {rust.rust_percent === null ? "between " : "as saved: "}
            {rust.says}
          </p>
          <label className="mt-4 block text-note">
            <span className="flex justify-between">
              <span>counts from</span>
              <span>{Math.round(threshold * 100)} % of a pixel</span>
            </span>
            <input
              type="range"
              className="w-full accent-next"
              min={0.1}
              max={0.9}
              step={0.02}
              value={threshold}
              onChange={(e) => onChange({ ...measuring, threshold: Number(e.target.value) })}
            />
          </label>
          <dl className="mt-3 text-note">
            {at === threshold ? <Line name="spots" value={rust.spots} /> : null}
            <Line name="stained" value={`${shown(rust.stain_percent)} %`} colour="#286ebe" />
            {rust.new_percent !== null ? (
              <Line
                name="new since the last inspection"
                value={`${shown(rust.new_percent)} %`}
                colour="#e0a800"
              />
            ) : null}
            {rust.colour_step !== null ? (
              <Line
                name="the steel's own colour moved"
                value={`ΔE ${rust.colour_step.toFixed(1)}`}
              />
            ) : null}
            {rust.ratings.map((rating) => {
              const [name = "", grade = ""] = rating.split(": ");
              return <Line key={name} name={name} value={grade} />;
            })}
          </dl>
          <ul className="mt-3 flex flex-col gap-2 text-note">
            {rust.doubts.map((doubt) => (
              <li key={doubt} className="border-l-4 border-glint pl-3">
                {doubt}
              </li>
            ))}
          </ul>
        </>
      ) : works ? (
        <p className="text-ink-2">Measuring …</p>
      ) : (
        <p className="text-ink-2">
          Press on the plunge line and on the tip, or draw the outline, and press on the white card:
          then its rust is measured.
        </p>
      )}
    </div>
  );
}

function Line({ name, value, colour }: { name: string; value: string; colour?: string }) {
  return (
    <div className="flex justify-between gap-x-4 border-t border-line py-1">
      <dt className="flex items-center gap-2 text-ink-2">
        {colour ? (
          <svg width={12} height={12} aria-hidden="true">
            <rect width={12} height={12} fill={colour} />
          </svg>
        ) : null}
        {name}
      </dt>
      <dd className="text-right font-semibold">{value}</dd>
    </div>
  );
}

const shown = (value: number) =>
  value < 0.005
    ? "0"
    : value < 1
      ? value.toFixed(2)
      : value < 20
        ? value.toFixed(1)
        : value.toFixed(0);
