import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { RangeRule } from "../../charts/RangeRule";
import { plural } from "../../domain/format";
import { Mark } from "../../ui/Mark";
import { VerdictWord } from "./VerdictWord";

type Line = Schemas["AssayLineOut"];

/** Blades with their claim, the word on it, the element that decides, and when they go home. */
export function BladeRows({ blades }: { blades: readonly Line[] }) {
  return (
    <ul className="mt-1">
      {blades.map((blade) => (
        <li key={blade.id} className="border-b border-line">
          <Link
            to={`/assay/blades/${blade.id}`}
            className={`grid items-center gap-x-6 gap-y-1 py-2 hover:bg-sheet
              bench:grid-cols-[11rem_9.5rem_1fr_17rem]`}
          >
            <span className="flex items-center gap-3">
              <Mark mark={blade.mark} size={26} />
              <span className="leading-tight">
                <b className="block text-lead">{blade.code}</b>
                <span className="cond text-note text-ink-2">
                  {blade.claim ? `sold as ${blade.claim}` : "no claim"}
                </span>
              </span>
            </span>
            <span className="leading-tight">
              <VerdictWord verdict={blade.verdict} word={blade.word} />
              <span className="cond block text-note text-ink-2">{shots(blade)}</span>
            </span>
            <span className="text-note leading-snug">
              {blade.sentence}
              {blade.loan_says ? <span className="block text-ink-2">{blade.loan_says}</span> : null}
            </span>
            <Decides gauge={blade.gauge} />
          </Link>
        </li>
      ))}
    </ul>
  );
}

function shots(blade: Line): string {
  const coated = blade.on_coating ? `, ${blade.on_coating} on coating` : "";
  return blade.shots || blade.on_coating ? `${plural(blade.shots, "shot")}${coated}` : "no shots";
}

/** The one element that decides, drawn as its rule. */
function Decides({ gauge }: { gauge: Line["gauge"] }) {
  if (!gauge) return <span />;
  const pins =
    gauge.percent === null
      ? []
      : [
          {
            id: "mean",
            name: "mean",
            percent: gauge.percent,
            plusMinus: gauge.uncertainty_percent,
            detected: true,
            faded: false,
          },
        ];
  const slots =
    gauge.low_percent === null && gauge.high_percent === null
      ? []
      : [{ name: "claim", low: gauge.low_percent, high: gauge.high_percent }];
  return (
    <span className="flex items-center gap-2">
      <b className="w-8 text-right">{gauge.element}</b>
      <RangeRule
        name={gauge.name}
        isSeen={gauge.visible !== "not_seen"}
        slots={slots}
        pins={pins}
        mean={null}
        uncertainty={null}
        width={224}
      />
    </span>
  );
}
