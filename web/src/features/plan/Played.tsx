import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { practicePage } from "../../api/folder";
import { openPlayed, type Played as PlayedPlan, playPlan } from "../../api/played";
import { ChartFrame } from "../../charts/ChartFrame";
import { PlayedChart } from "../../charts/PlayedChart";
import { newId } from "../../domain/ids";
import { shownNumber } from "../../domain/typed";
import { ImportProgress } from "../../parts/ImportProgress";
import { Choice, Option } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Section } from "../../ui/Section";
import { Table } from "../../ui/Table";
import { useForm } from "../../ui/useForm";
import { useWidth } from "../../ui/useWidth";

type Found = Schemas["TrialPlanOut"];

/** The saved plan played on stated lives: what its verdicts would have said, and how often rightly. */
export function Played({ found, trialId }: { found: Found; trialId: string }) {
  const [playId, setPlayId] = useState(newId);
  const [seed, setSeed] = useState(1);
  const lives = found.blades.map((blade) => blade.code);
  const nameOf = (code: string) => `lives.${code}`;
  const play = useMutation({
    mutationFn: (stated: Schemas["StatedBody"]) => playPlan(trialId, stated),
    onSettled: () => {
      setPlayId(newId());
      setSeed(seed + 1);
    },
  });
  const kinds: Record<string, { needed: string }> = {
    ...Object.fromEntries(lives.map((code) => [nameOf(code), { needed: "state a life" }])),
    edge_spread_percent: { needed: "say how edges scatter" },
    reading_scatter_percent: { needed: "say how readings scatter" },
  };
  const form = useForm({
    kinds,
    start: {
      ...Object.fromEntries(
        found.blades.map((b) => [nameOf(b.code), shownNumber(Math.round(b.expected.life))]),
      ),
      edge_spread_percent: shownNumber(Math.round(found.edge_spread_percent * 10) / 10),
      reading_scatter_percent: shownNumber(Math.round(found.reading_scatter_percent * 10) / 10),
    },
    error: play.error,
  });
  if (found.blades.length < 2 || found.shows_percent === null) return null;
  const unit = found.method.count_unit ?? "cuts";
  const isStudied = found.method.checks.some((check) => check.scatter_percent != null);
  return (
    <Section title="Simulate before cutting">
      <Note className="max-w-3xl">
        State how long each blade truly lasts. The saved plan is played in 100 virtual trials, each
        cut, checked and judged as a real one; nothing is saved.
      </Note>
      <form
        noValidate
        className="mt-3 max-w-4xl"
        onSubmit={form.onSubmit((read) => {
          const stated = lives.map((code) => [code, read[nameOf(code)] ?? 0]);
          play.mutate({
            id: playId,
            lives: Object.fromEntries(stated) as Record<string, number>,
            edge_spread_percent: read.edge_spread_percent ?? 0,
            reading_scatter_percent: read.reading_scatter_percent ?? 0,
            trials: 100,
            seed,
          });
        })}
      >
        <div className="grid grid-cols-2 gap-3 bench:grid-cols-4">
          {lives.map((code) => (
            <Field
              key={code}
              label={`Life of ${found.codes[code] ?? code}`}
              unit={unit}
              {...form.field(nameOf(code))}
            />
          ))}
          <Field label="Edges scatter by" unit="%" {...form.field("edge_spread_percent")} />
          <Field
            label="Readings scatter by"
            unit="%"
            hint={isStudied ? "as the method says" : "usual; a gauge study tells yours"}
            {...form.field("reading_scatter_percent")}
          />
        </div>
        <div className="mt-3">
          <FormFoot form={form} isSaving={play.isPending}>
            Play 100 trials
          </FormFoot>
        </div>
      </form>
      {play.isPending ? (
        <div className="mt-3 max-w-xl">
          <ImportProgress id={playId} stop="Cancel" cancelled="Cancelling" />
        </div>
      ) : null}
      {play.data && !play.isPending ? <Outcomes played={play.data} /> : null}
    </Section>
  );
}

function Outcomes({ played }: { played: PlayedPlan }) {
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const { ref, width } = useWidth<HTMLDivElement>(640);
  const open = useMutation({
    mutationFn: (number: number) => openPlayed(played.id, number),
    onSuccess: ({ trial_id }) =>
      window.location.assign(practicePage(`/trials/${trial_id}/verdict`)),
  });
  const pair = played.pairs[Math.min(at, played.pairs.length - 1)];
  if (!pair) return null;
  const name = `${pair.b} against ${pair.a}`;
  const number = chosen ?? pair.verdicts[0]?.number ?? 1;
  return (
    <div className="mt-5 grid gap-x-12 gap-y-5 bench:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
      <div>
        {played.says.map((words) => (
          <p key={words} className="mt-1 text-lead">
            {words}
          </p>
        ))}
        <Table
          scrolls="Played pairs"
          className="mt-4 w-full"
          heads={["pair", "stated", "right", "wrong", "silent", "plan expects"]}
        >
          {played.pairs.map((each, i) => (
            <tr key={`${each.a} ${each.b}`} className="border-b border-line">
              <td className="py-1.5 pr-3">
                <button
                  type="button"
                  aria-pressed={i === at}
                  className={`min-h-6 cursor-pointer text-left underline underline-offset-4
                    ${i === at ? "font-bold" : ""}`}
                  onClick={() => setAt(i)}
                >
                  {each.b} / {each.a}
                </button>
              </td>
              <td>{signed(each.percent)} %</td>
              <td>{each.right}</td>
              <td>{each.wrong}</td>
              <td>{each.silent}</td>
              <td>{each.percent === 0 ? "" : each.expected.toFixed(0)}</td>
            </tr>
          ))}
        </Table>
        <form
          className="mt-4 flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            open.mutate(number);
          }}
        >
          <Choice
            label="Look at one trial"
            value={String(number)}
            onPick={(value) => setChosen(Number(value))}
          >
            {pair.verdicts.map((verdict) => (
              <Option key={verdict.number} value={String(verdict.number)}>
                {`Trial ${verdict.number}: ${verdict.outcome}`}
              </Option>
            ))}
          </Choice>
          <button
            type="submit"
            disabled={open.isPending}
            className="min-h-11 cursor-pointer font-semibold underline underline-offset-4"
          >
            {open.isPending ? "Opening trial" : `Open trial ${number}, marked simulated`}
          </button>
          <Notice says={open.error?.message} />
        </form>
      </div>
      <div ref={ref} className="min-w-0">
        <ChartFrame
          name={`Played verdicts on ${name}`}
          caption={
            `By how much ${pair.b} outlasts ${pair.a}: the estimate and 95 % interval of each of ` +
            `${played.trials} played trials. Full: right. Hollow: silent. Cross: wrong.`
          }
          numbers={{
            heads: ["trial", "estimate, %", "low, %", "high, %", "outcome"],
            rows: pair.verdicts.map((v) => [
              String(v.number),
              fixed(v.percent),
              fixed(v.low),
              fixed(v.high),
              v.outcome,
            ]),
          }}
        >
          {() => (
            <PlayedChart
              pair={name}
              truth={pair.percent}
              verdicts={pair.verdicts}
              width={width}
              chosen={chosen}
              onChoose={setChosen}
            />
          )}
        </ChartFrame>
      </div>
    </div>
  );
}

const signed = (percent: number) => `${percent > 0 ? "+" : ""}${percent.toFixed(0)}`;
const fixed = (value: number | null) => (value === null ? "open" : value.toFixed(1));
