import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { day, unbroken } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Choice, Option } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Mark } from "../../ui/Mark";
import { Heading } from "../../ui/Section";
import { Toggles } from "../../ui/Toggles";

type Trial = Schemas["TrialTodayOut"];
const SHOWN = 60;
const FILTERED_FROM = 6;
const ANY = "any";

/** Finished trials, one line each: found by typing, by school, steel and year; archived apart. */
export function FinishedTrials({
  trials,
  archived,
}: {
  trials: readonly Trial[];
  archived: Record<string, string>;
}) {
  const [asked, setAsked] = useState({ text: "", school: ANY, steel: ANY, year: ANY });
  const [away, setAway] = useState<"here" | "archived">("here");
  const [shown, setShown] = useState(SHOWN);
  const finished = trials
    .filter(({ trial, is_finished }) => is_finished || archived[trial.id])
    .sort((a, b) => lastCut(b).localeCompare(lastCut(a)));
  const put = Object.keys(archived).length;
  if (finished.length === 0) return null;
  const here = finished.filter(({ trial }) => Boolean(archived[trial.id]) === (away !== "here"));
  const found = here.filter((each) => fits(each, asked));
  const pick = (name: "school" | "steel" | "year") => ({
    value: asked[name],
    onPick: (value: string) => setAsked({ ...asked, [name]: value }),
  });
  return (
    <section aria-label="Finished trials" className="mt-9 border-t-[1.5px] border-ink pt-4">
      <div className="flex flex-wrap items-center justify-between gap-x-8 gap-y-2">
        <Heading>
          {away === "here" ? "Finished" : "In the archive"}
          <span className="font-normal text-ink-2">
            {" "}
            {found.length === here.length ? here.length : `${found.length} of ${here.length}`}
          </span>
        </Heading>
        {put ? (
          <Toggles
            says="Show trials"
            value={away}
            onPick={setAway}
            choices={[
              ["here", "Finished"],
              ["archived", `Archived, ${put}`],
            ]}
          />
        ) : null}
      </div>
      {finished.length >= FILTERED_FROM ? (
        <div className="mt-2 grid grid-cols-2 gap-3 bench:grid-cols-[1fr_14rem_12rem_8rem]">
          <Field
            label="Find"
            className="max-bench:col-span-2"
            value={asked.text}
            onChange={(e) => setAsked({ ...asked, text: e.target.value })}
          />
          <Filter
            label="School"
            all={here.map((t) => [t.trial.school, t.trial.method_name])}
            {...pick("school")}
          />
          <Filter
            label="Steel"
            all={here.flatMap((t) => t.arms.map((a) => [a.steel, a.steel]))}
            {...pick("steel")}
          />
          <Filter label="Year" all={here.map((t) => [year(t), year(t)])} {...pick("year")} />
        </div>
      ) : null}
      <ul className="mt-2">
        {found.slice(0, shown).map((each) => (
          <Line key={each.trial.id} entry={each} />
        ))}
      </ul>
      {found.length === 0 ? <p className="py-3 text-ink-2">No matches.</p> : null}
      {found.length > shown ? (
        <Button className="mt-3" onClick={() => setShown(shown + SHOWN)}>
          Show {Math.min(SHOWN, found.length - shown)} more
        </Button>
      ) : null}
    </section>
  );
}

function Line({ entry }: { entry: Trial }) {
  const { trial, arms } = entry;
  return (
    <li className="border-t border-line">
      <Link
        to={`/trials/${trial.id}/verdict`}
        className={`grid items-baseline gap-x-5 py-2 hover:bg-sheet
          bench:grid-cols-[17rem_minmax(0,1fr)_6.5rem_7rem]`}
      >
        <span className="leading-tight">
          <b className="underline decoration-line underline-offset-4">{trial.name}</b>
          {trial.question ? (
            <span className="block text-note text-ink-2">{trial.question}</span>
          ) : null}
        </span>
        <span className="line-clamp-2">{unbroken(entry.headline)}</span>
        <span className="text-note text-ink-2 max-bench:mt-1">{day(lastCut(entry))}</span>
        <span className="flex flex-wrap gap-1 max-bench:mt-1">
          {arms.slice(0, 6).map((arm) => (
            <Mark key={arm.code} mark={arm.mark} size={16} />
          ))}
          {arms.length > 6 ? <span className="text-note">+{arms.length - 6}</span> : null}
          <span className="sr-only">{arms.map((arm) => arm.code).join(", ")}</span>
        </span>
      </Link>
    </li>
  );
}

function Filter({
  label,
  all,
  value,
  onPick,
}: {
  label: string;
  all: ReadonlyArray<readonly string[]>;
  value: string;
  onPick: (value: string) => void;
}) {
  const named = new Map(all.filter(([key]) => key).map(([key, name]) => [key, name] as const));
  const known = [...named].sort((a, b) => String(a[1]).localeCompare(String(b[1])));
  return (
    <Choice label={label} value={value} onPick={onPick}>
      <Option value={ANY}>any</Option>
      {known.map(([key, name]) => (
        <Option key={key} value={String(key)}>
          {name}
        </Option>
      ))}
    </Choice>
  );
}

const lastCut = (entry: Trial) => entry.last_cut_utc || entry.trial.created_utc;
const year = (entry: Trial) => lastCut(entry).slice(0, 4);

function fits(
  entry: Trial,
  asked: { text: string; school: string; steel: string; year: string },
): boolean {
  const { trial, arms, headline } = entry;
  const all = [trial.name, trial.question, headline, trial.medium, trial.method_name]
    .concat(arms.flatMap((arm) => [arm.code, arm.steel]))
    .join(" ")
    .toLowerCase();
  const words = asked.text.toLowerCase().split(/\s+/).filter(Boolean);
  return (
    words.every((word) => all.includes(word)) &&
    (asked.school === ANY || trial.school === asked.school) &&
    (asked.steel === ANY || arms.some((arm) => arm.steel === asked.steel)) &&
    (asked.year === ANY || year(entry) === asked.year)
  );
}
