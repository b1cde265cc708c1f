import type { Schemas } from "../../api/client";
import { ChartFrame } from "../../charts/ChartFrame";
import { LifeLadder, type Rung } from "../../charts/LifeLadder";
import { capital } from "../../domain/format";
import { Note } from "../../ui/Note";
import { Term } from "../../ui/Term";

interface Props {
  stage: string;
  ladder: readonly Schemas["BladeVerdictOut"][];
  tieGroups: readonly (readonly string[])[];
  /** Whether the stage goes by a force limit, and not by pass and fail. */
  byForce: boolean;
  /** What each stage of the method is lost by. */
  stageWords: readonly string[];
  /** Rungs of references of earlier trials, below those of the trial. */
  references?: readonly Rung[];
  width: number;
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}

/** The ladder of one stage; plain brackets are called what they are. */
export function StageLadder({
  stage,
  ladder,
  tieGroups,
  byForce,
  stageWords,
  references = [],
  ...rest
}: Props) {
  const unit = ladder[0]?.count_unit ?? "cuts";
  const lives = ladder.map((rung) => rung.lives[stage]);
  const span = lives.some((life) => life?.estimate != null)
    ? "95 % interval of the blade, the spread of its edges in it"
    : "from last pass to first fail";
  const title = `${unit} to ${stage}${byForce ? "" : " lost"}, ${span}`;
  const rungs = [
    ...ladder.map((rung) => {
      const life = rung.lives[stage];
      return {
        blade: rung.blade,
        mark: rung.mark,
        grade: rung.grade,
        ranked: rung.ranked,
        edges: rung.edges,
        words: life?.words ?? "",
        scaled: rung.on_one_length[stage],
        estimate: life?.estimate ?? null,
        low: life?.low ?? null,
        high: life?.high ?? null,
        open: openEnd(life),
      };
    }),
    ...references,
  ];
  const lostBy = byForce ? undefined : stageWords.find((words) => words.startsWith(`${stage}: `));
  return (
    <>
      {byForce && (stage === "keen" || stage === "dull") ? (
        <Note>
          {stage} <Term of={stage} />
        </Note>
      ) : null}
      {lostBy ? <p className="text-note text-ink-2">{capital(lostBy)}.</p> : null}
      <ChartFrame
        name={`Lives to ${stage}`}
        caption={
          `${capital(title)}.` +
          (tieGroups.length ? " In one bracket: these runs cannot tell them apart." : "")
        }
        series={rungs.map(({ blade, mark }) => ({ name: blade, mark }))}
        numbers={{
          heads: ["blade", `${unit} to ${stage}`, "from", "to", "in words"],
          rows: rungs.map((rung) => [
            rung.blade,
            ...[rung.estimate, rung.low, rung.high].map((value) =>
              value === null ? "" : String(Number(value.toPrecision(4))),
            ),
            rung.words,
          ]),
        }}
      >
        {({ hidden }) => (
          <LifeLadder
            rungs={rungs.filter((rung) => !hidden.has(rung.blade))}
            tieGroups={tieGroups}
            {...rest}
          />
        )}
      </ChartFrame>
    </>
  );
}

function openEnd(life: Schemas["LifeOut"] | undefined): "above" | "below" | null {
  if (life?.status === "not_reached") return "above";
  return life?.status === "before_first_check" ? "below" : null;
}
