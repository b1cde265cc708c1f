import { useState } from "react";
import type { Schemas } from "../../api/client";
import { ChartFrame } from "../../charts/ChartFrame";
import { DecayChart } from "../../charts/DecayChart";
import { limitsOf, wholeOf } from "../../charts/decay";
import {
  type CourseRun,
  commonAlong,
  type DecayWay,
  drawnLimits,
  drawnRuns,
  PLAIN,
} from "../../charts/decayView";
import { Toggles } from "../../ui/Toggles";
import { referenceCurves } from "./references";

type VerdictData = Schemas["AnswerOut"];

interface Props {
  data: VerdictData;
  references: readonly Schemas["ReferenceOut"][];
  width: number;
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}

/** Sharpness of every edge over what was cut, drawn as the tester wants it. */
export function Course({ data, references, width, highlighted, onHighlight }: Props) {
  const [way, setWay] = useState<DecayWay>(PLAIN);
  const unit = data.ladder[0]?.count_unit ?? "cuts";
  const own = courseRuns(data);
  const others = commonAlong(own);
  const along = others.find((each) => each.kind === way.by)?.unit ?? unit;
  const lastCount = Math.max(0, ...own.flatMap((run) => run.readings.map((each) => each.count)));
  const beside = referenceCurves(references, lastCount).map((run) => ({
    ...run,
    along: [],
    startGf: run.band?.middle_gf[0] ?? null,
  }));
  const runs = drawnRuns([...own, ...beside], way);
  const whole = wholeOf(runs);
  const through = data.trial.medium ? ` through ${data.trial.medium}` : "";
  const marks = new Map(own.map((run) => [run.blade, run.mark]));
  return (
    <ChartFrame
      name={`Sharpness, ${data.trial.name}`}
      caption={
        "Filled marks: first edge; hollow: later edges. Bands and whiskers: 95 %." +
        (way.isScaled ? " Forces are shares of each edge's own start." : "")
      }
      series={[...marks].map(([name, mark]) => ({ name, mark }))}
      whole={whole}
      ways={<Ways way={way} onPick={setWay} unit={unit} others={others} />}
      numbers={{
        heads: ["blade", "edge", along, way.isScaled ? "% of its start" : "gf", "included"],
        rows: runs.flatMap((run) =>
          run.readings.map((each) => [
            run.blade,
            String(run.edge),
            String(Number(each.count.toPrecision(6))),
            String(Number(each.force_gf.toPrecision(4))),
            each.struck ? "no" : "yes",
          ]),
        ),
      }}
    >
      {({ hidden, span }) => (
        <DecayChart
          title={
            `Sharpness of ${data.blades.map((b) => b.code).join(", ")} over ${along}; ` +
            "Numbers holds every reading"
          }
          runs={runs.filter((run) => !hidden.has(run.blade))}
          limits={drawnLimits(limitsOf(data.trial.method), way)}
          unit={`${along}${through}`}
          forceUnit={way.isScaled ? "% of start" : "gf"}
          isTurned={way.isTurned}
          span={span}
          width={width}
          height={Math.max(330, Math.min(450, width * 0.55))}
          highlighted={highlighted}
          onHighlight={onHighlight}
        />
      )}
    </ChartFrame>
  );
}

function Ways({
  way,
  onPick,
  unit,
  others,
}: {
  way: DecayWay;
  onPick: (way: DecayWay) => void;
  unit: string;
  others: ReturnType<typeof commonAlong>;
}) {
  return (
    <>
      {others.length ? (
        <Toggles
          quiet
          says="Drawn along"
          value={way.by}
          onPick={(by) => onPick({ ...way, by })}
          choices={[["count", unit], ...others.map((each) => [each.kind, each.unit] as const)]}
        />
      ) : null}
      <Toggles
        quiet
        says="Force as"
        value={way.isScaled ? "share" : "gf"}
        onPick={(as) => onPick({ ...way, isScaled: as === "share" })}
        choices={[
          ["gf", "gf"],
          ["share", "% of start"],
        ]}
      />
      <Toggles
        quiet
        says="Sharp edges are"
        value={way.isTurned ? "below" : "above"}
        onPick={(where) => onPick({ ...way, isTurned: where === "below" })}
        choices={[
          ["above", "sharp above"],
          ["below", "sharp below"],
        ]}
      />
    </>
  );
}

function courseRuns(data: VerdictData): CourseRun[] {
  return data.runs.map((r) => ({
    id: r.run.id,
    blade: r.blade,
    mark: r.mark,
    edge: r.run.edge,
    readings: r.readings,
    band: r.band,
    life: r.lives[data.stage]?.status === "crossed" ? (r.lives[data.stage] ?? null) : null,
    leftOut: data.left_out.includes(r.blade),
    along: r.along,
    startGf: r.start_gf,
  }));
}
