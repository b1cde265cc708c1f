import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { confirmGrade, deleteGrade, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { gradeQuery } from "../../api/queries";
import { RangeRule } from "../../charts/RangeRule";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Mark } from "../../ui/Mark";
import { Page } from "../../ui/Page";
import { Pop } from "../../ui/Pop";
import { Heading, Section } from "../../ui/Section";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting } from "../../ui/State";
import { useWidth } from "../../ui/useWidth";
import { GradeForm } from "./GradeForm";
import { words } from "./Grades";
import { Toughness } from "./Toughness";

type GradeFacts = Schemas["GradePageOut"];

/** All that is known of one grade: its ranges as slots, what looks alike, what follows from it. */
export function GradePage() {
  const { name = "" } = useParams();
  const found = useQuery(gradeQuery(name));
  const [changing, setChanging] = useState(false);
  const forget = useChange(deleteGrade);
  if (found.isPending) return <Waiting what="the grade" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const { grade } = found.data;
  const low = grade.usual_low_hrc;
  return (
    <Page>
      <div className="flex flex-wrap items-start justify-between gap-x-8 gap-y-3">
        <div>
          <h1 className="answer">
            {grade.name}
            <span className="ml-4 text-lead font-normal text-ink-2">{grade.also?.join(", ")}</span>
          </h1>
          <p className="text-ink-2">
            {[
              grade.standard,
              words(grade.route),
              low == null ? "" : `usually ${low} to ${grade.usual_high_hrc} HRC`,
              grade.own ? "changed by you" : "",
            ]
              .filter(Boolean)
              .join(" · ")}
          </p>
          <Equivalents grade={grade} />
        </div>
        <div className="flex flex-wrap gap-3">
          {grade.is_recalled ? <Confirm grade={grade} /> : null}
          <Button onClick={() => setChanging(true)}>Edit</Button>
          {grade.own ? (
            <Button kind="quiet" onClick={() => forget.mutate(grade.name)}>
              Undo my change
            </Button>
          ) : null}
        </div>
      </div>
      <div className="grid gap-x-12 gap-y-8 pt-5 bench:grid-cols-[1.25fr_1fr]">
        <div className="flex flex-col gap-7">
          <Ranges page={found.data} />
          <Effects page={found.data} />
        </div>
        <div className="flex flex-col gap-7">
          <Figures page={found.data} />
          <Toughness owner={{ grade: grade.name }} />
          <Neighbours page={found.data} />
          <Blades page={found.data} />
        </div>
      </div>
      <Sheet open={changing} onOpenChange={setChanging} title={`Change ${grade.name}`}>
        <GradeForm grade={grade} onDone={() => setChanging(false)} />
      </Sheet>
    </Page>
  );
}

function Equivalents({ grade }: { grade: GradeFacts["grade"] }) {
  const of = (nearness: "same" | "near") =>
    (grade.equivalents ?? []).filter((e) => e.nearness === nearness);
  const list = (found: ReturnType<typeof of>) =>
    found.map((e, i) => (
      <span key={e.name}>
        {i ? ", " : ""}
        <Link
          className="underline decoration-line underline-offset-4 hover:decoration-ink"
          to={`/grades/${encodeURIComponent(e.name)}`}
        >
          {e.name}
        </Link>
      </span>
    ));
  const same = of("same");
  const near = of("near");
  if (same.length + near.length === 0) return null;
  return (
    <p className="text-note">
      {same.length ? <>Same steel, other standards: {list(same)}. </> : null}
      {near.length ? <>Similar: {list(near)}.</> : null}
    </p>
  );
}

function Confirm({ grade }: { grade: GradeFacts["grade"] }) {
  const [open, setOpen] = useState(false);
  const [source, setSource] = useState(grade.standard ?? "");
  const confirm = useChange(confirmGrade, () => setOpen(false));
  return (
    <Pop open={open} onOpenChange={setOpen} trigger={<Button>Confirm its values</Button>}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          confirm.mutate({ name: grade.name, source });
        }}
      >
        <p className="text-note">
          Its ranges are unconfirmed. Check them against the standard, then name it.
        </p>
        <Field
          label="Checked against"
          value={source}
          onChange={(e) => setSource(e.target.value)}
          error={confirm.error?.message}
        />
        <Button kind="next" type="submit">
          Confirm ranges
        </Button>
      </form>
    </Pop>
  );
}

function Ranges({ page }: { page: GradeFacts }) {
  const { ref, width } = useWidth<HTMLElement>(560);
  const ranges = page.grade.ranges ?? [];
  return (
    <section aria-label="Ranges" ref={ref}>
      <Heading>
        Composition
        <span className="ml-3 text-note font-normal text-ink-2">mass per cent</span>
      </Heading>
      {ranges.length === 0 ? <p className="text-ink-2">Its composition is not known yet.</p> : null}
      {ranges.map((r) => (
        <div
          key={r.element}
          className="grid grid-cols-[3.2rem_1fr_10rem] items-center gap-2 border-b border-line"
        >
          <b className="text-lead">{r.element}</b>
          <RangeRule
            name={r.element}
            isSeen={page.visible[r.element] !== "not_seen"}
            slots={[
              { name: page.grade.name, low: r.low_percent ?? null, high: r.high_percent ?? null },
            ]}
            pins={[]}
            mean={null}
            uncertainty={null}
            width={Math.max(width - 230, 160)}
          />
          <span className="text-right text-note leading-tight">
            {said(r)}
            <span className="block text-ink-2">
              {r.standing === "recalled" ? "unconfirmed" : r.source || r.standing}
            </span>
          </span>
        </div>
      ))}
    </section>
  );
}

function said(r: Schemas["RangeBody"]): string {
  if (r.low_percent == null && r.high_percent == null) return "any";
  if (r.low_percent == null) return `at most ${r.high_percent} %`;
  if (r.high_percent == null) return `at least ${r.low_percent} %`;
  return `${r.low_percent} to ${r.high_percent} %`;
}

function Figures({ page }: { page: GradeFacts }) {
  if ((page.grade.ranges ?? []).length === 0) return null;
  const { derived } = page;
  const [low = 0, high = 0] = derived.chromium_in_solution;
  const rows: [string, string][] = [
    ["PREN", derived.pren.toFixed(1)],
    ...(derived.pren_w === null
      ? []
      : ([["PREN with tungsten", derived.pren_w.toFixed(1)]] as [string, string][])),
    ["Carbon tied in MC", `${derived.carbon_in_mc.toFixed(2)} %`],
    ["Chromium in solution", `${low.toFixed(1)} to ${high.toFixed(1)} %`],
  ];
  return (
    <Section title="Calculated from mid-range">
      <dl className="mt-1">
        {rows.map(([label, value]) => (
          <div key={label} className="flex justify-between border-b border-line py-1">
            <dt>{label}</dt>
            <dd className="font-semibold">{value}</dd>
          </div>
        ))}
      </dl>
      <ul className="mt-2 flex flex-col gap-1 text-note text-ink-2">
        {derived.notes.map((note) => (
          <li key={note}>{note}</li>
        ))}
      </ul>
    </Section>
  );
}

function Neighbours({ page }: { page: GradeFacts }) {
  if (page.neighbours.length === 0) return null;
  return (
    <Section title="Grades XRF cannot separate">
      <ul className="mt-1">
        {page.neighbours.map((n) => (
          <li key={n.name} className="flex items-baseline gap-3 border-b border-line py-1">
            <Link
              className="min-w-24 font-semibold underline decoration-line underline-offset-4"
              to={`/grades/${encodeURIComponent(n.name)}`}
            >
              {n.name}
            </Link>
            <span className="w-14 text-right">{Math.round(100 * n.overlap)} %</span>
            <span className="text-note text-ink-2">separated by {n.separated_by}</span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function Blades({ page }: { page: GradeFacts }) {
  return (
    <Section title="Blades sold as this grade">
      {page.blades.length === 0 ? <p className="text-ink-2">None on the shelf.</p> : null}
      <ul>
        {page.blades.map((blade) => (
          <li key={blade.id} className="mt-1 flex gap-3">
            <Mark mark={blade.mark} size={22} />
            <span>
              <Link
                className="font-semibold underline decoration-line underline-offset-4"
                to={`/assay/blades/${blade.id}`}
              >
                {blade.code}
              </Link>
              : {blade.verdict}
              {blade.lives.map((life) => (
                <span key={life} className="block text-note text-ink-2">
                  {life}
                </span>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function Effects({ page }: { page: GradeFacts }) {
  if (page.effects.length === 0) return null;
  return (
    <Section title="What its elements do" className="pb-8">
      <dl className="mt-2 grid gap-y-2">
        {page.effects.map((effect) => (
          <div key={effect.element} className="flex gap-3">
            <dt className="w-8 shrink-0 text-lead font-bold">{effect.element}</dt>
            <dd>
              {effect.says} <span className="text-ink-2">{effect.until}</span>
            </dd>
          </div>
        ))}
      </dl>
    </Section>
  );
}
