import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { waysQuery } from "../../api/ways";
import { toggled } from "../../domain/leftOut";
import { LIMITS } from "../../domain/limits.gen";
import { WORDS, type WordOf } from "../../domain/words";
import { buttonLook } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Heading } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { Tick } from "../../ui/Tick";
import { useDraft } from "../../ui/useDraft";
import { useForm } from "../../ui/useForm";

type InHand = WordOf<"inHand">;

const KINDS = {
  question: { word: "testQuestions" },
  blades: LIMITS.blades_compared,
  wanted_percent: LIMITS.wanted_percent,
  hours: LIMITS.hours_at_hand,
} as const;
const START = { question: "lasts", blades: "2", wanted_percent: "20", hours: "" };
const USUAL: { readonly inHand: readonly InHand[] } = {
  inHand: ["rope", "board", "tester", "paper", "salt"],
};

/** Which way of testing suits a question: what each shows, what it takes, and where it begins. */
export function Ways() {
  const form = useForm({ draft: "ways", kinds: KINDS, start: START });
  const [{ inHand }, setInHand] = useDraft("ways-in-hand", USUAL);
  const read = form.values;
  const found = useQuery({
    ...waysQuery({
      question: read?.question ?? "lasts",
      in_hand: [...inHand],
      blades: read?.blades ?? 2,
      wanted_percent: read?.wanted_percent ?? 20,
      hours: read?.hours ?? null,
    }),
    enabled: read !== null,
    placeholderData: keepPreviousData,
  });
  return (
    <Page>
      <h1 className="answer max-w-4xl">Which way of testing suits the question?</h1>
      <div className="mt-5 grid gap-x-12 gap-y-8 bench:grid-cols-[20rem_minmax(0,1fr)]">
        <section aria-label="Question and means" className="flex flex-col gap-4">
          <Choice label="Question" {...form.choice("question")}>
            <Options of={WORDS.testQuestions} />
          </Choice>
          <div className="grid grid-cols-2 gap-3">
            <Field label="Blades" {...form.field("blades")} />
            <Field label="Difference to show" unit="%" {...form.field("wanted_percent")} />
          </div>
          <Field
            label="Hours at hand"
            unit="h"
            hint="Empty: as many as it takes."
            {...form.field("hours")}
          />
          <fieldset>
            <legend className="text-note font-medium">In hand</legend>
            {WORDS.inHand.map(([key, label]) => (
              <Tick
                key={key}
                label={label}
                checked={inHand.includes(key)}
                onTick={() => setInHand({ inHand: toggled(inHand, key) })}
              />
            ))}
          </fieldset>
        </section>
        <section aria-label="Ways that answer it">
          {found.isPending ? <Waiting what="the ways" /> : null}
          {found.isError ? (
            <Failed error={found.error} onRetry={() => void found.refetch()} />
          ) : null}
          {found.data ? (
            <>
              <Heading>{found.data.says}</Heading>
              <p className="mt-1 max-w-3xl text-ink-2">{found.data.stand}</p>
              <ol className="mt-3">
                {found.data.ways.map((way, at) => (
                  <Way key={way.school || way.soak} way={way} isFirst={at === 0} />
                ))}
              </ol>
              <Note className="mt-3 max-w-3xl">
                Costs rest on how far an edge usually goes; the plan of a trial reckons with your
                own blades. Cautions defer to local rules.
              </Note>
            </>
          ) : null}
        </section>
      </div>
    </Page>
  );
}

function Way({ way, isFirst }: { way: Schemas["WayOut"]; isFirst: boolean }) {
  return (
    <li className="border-t-[1.5px] border-ink py-4">
      <div className="flex flex-wrap items-start justify-between gap-x-8 gap-y-2">
        <h3 className="text-lead font-bold">
          {way.name}
          {way.is_partly ? (
            <span className="text-note font-normal text-ink-2"> answers it in part</span>
          ) : null}
        </h3>
        <Link
          className={buttonLook(isFirst && !way.missing ? "next" : "plain")}
          to={way.school ? `/?new=trial&school=${way.school}` : `/soak?new=soak&method=${way.soak}`}
        >
          {way.school ? "Begin a trial" : "Begin a soak"}
        </Link>
      </div>
      <p className="max-w-3xl">
        {way.shows} {way.cannot}
      </p>
      <p className="mt-1 max-w-3xl">
        {way.cost} {way.in_hours}
      </p>
      {way.missing ? <p className="mt-1 font-medium text-rust">{way.missing}</p> : null}
      <Note className="mt-1 max-w-3xl">{way.cautions.join(" ")}</Note>
    </li>
  );
}
