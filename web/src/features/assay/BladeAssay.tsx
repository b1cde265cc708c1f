import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { bladeAssayQuery } from "../../api/queries";
import { type Pin, RangeRule, type Slot } from "../../charts/RangeRule";
import { Button, buttonLook } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { OnOff } from "../../ui/OnOff";
import { Page } from "../../ui/Page";
import { Heading, Section } from "../../ui/Section";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting } from "../../ui/State";
import { useWidth } from "../../ui/useWidth";
import { Candidates } from "./Candidates";
import { ShotForm } from "./ShotForm";
import { ShotList } from "./ShotList";

type Out = Schemas["AssayOut"];
/** A grade with what it promises of each element. */
type Promised = Pick<Out["candidates"][number], "grade" | "slots">;

/** One blade at the assay: the verdict in a sentence, each element as a rule, the grades that fit. */
export function BladeAssay() {
  const { bladeId = "" } = useParams();
  const [corrected, setCorrected] = useState(true);
  const [adding, setAdding] = useState(false);
  const [laid, setLaid] = useState<readonly string[]>([]);
  const found = useQuery(bladeAssayQuery(bladeId, corrected));
  if (found.isPending) return <Waiting what="the assay" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const { data } = found;
  return (
    <Page>
      <div className="flex flex-wrap items-start justify-between gap-x-8 gap-y-3 bench:flex-nowrap">
        <div>
          <p className="flex items-center gap-3 text-lead font-bold">
            <Mark mark={data.line.mark} size={28} />
            {data.line.code}
            <span className="font-normal text-ink-2">
              {data.line.claim ? `sold as ${data.line.claim}` : "no grade claimed"}
            </span>
          </p>
          <h1 className="answer mt-1 max-w-4xl">{data.line.sentence}</h1>
        </div>
        <Button kind={data.shots.length ? "plain" : "next"} onClick={() => setAdding(true)}>
          Add a shot
        </Button>
      </div>
      {data.unknown_claim ? (
        <p className="mt-2">
          <Link className={buttonLook("plain")} to={newGrade(data.unknown_claim)}>
            Add the grade {data.unknown_claim}
          </Link>
        </p>
      ) : null}
      <ul className="mt-2 max-w-4xl text-note text-ink-2">
        {data.notes.map((note) => (
          <li key={note}>{note}</li>
        ))}
      </ul>
      {data.normalised === "yes" || !corrected ? (
        <OnOff
          label="Correct for elements not seen, with each grade's own carbon and nitrogen"
          on={corrected}
          onTurn={setCorrected}
        />
      ) : null}
      <div className="grid gap-x-12 gap-y-8 pt-4 bench:grid-cols-[1.35fr_1fr]">
        <Elements data={data} laid={laid} />
        <div className="flex flex-col gap-7">
          <Candidates
            data={data}
            laid={laid}
            onLay={(grade) =>
              setLaid(laid.includes(grade) ? laid.filter((g) => g !== grade) : [...laid, grade])
            }
          />
          <Settled data={data} />
          <Hanging data={data} bladeId={bladeId} />
        </div>
      </div>
      <ShotList bladeId={bladeId} shots={data.shots} />
      <Sheet
        open={adding}
        onOpenChange={setAdding}
        title="Add a shot"
        note="Typed or pasted from the analyser, or taken with the simulated one."
      >
        <ShotForm
          bladeId={bladeId}
          claim={data.line.claim}
          number={data.shots.length + 1}
          onDone={() => setAdding(false)}
        />
      </Sheet>
    </Page>
  );
}

const newGrade = (name: string) =>
  `/shelf?${new URLSearchParams({ part: "grades", new: "grade", name })}`;

/** Each element as a short rule: the claim's slot first, the grades laid over it below. */
function Elements({ data, laid }: { data: Out; laid: readonly string[] }) {
  const { ref, width } = useWidth<HTMLElement>(560);
  const first = data.claim ?? data.candidates.find((c) => c.is_in)?.grade ?? "";
  const claimed = data.claim ? [{ grade: data.claim, slots: data.claim_slots }] : [];
  const others = data.candidates.filter(
    (c) => c.grade !== data.claim && (c.grade === first || laid.includes(c.grade)),
  );
  const ordered: Promised[] = [...claimed, ...others];
  const scale = data.candidates.find((c) => c.grade === first)?.scale ?? 1;
  return (
    <section aria-label="Elements" ref={ref}>
      <Heading>
        {first ? `Against ${ordered.map((c) => c.grade).join(", then ")}` : "Readings"}
        {data.elements.length ? (
          <span className="ml-3 text-note font-normal text-ink-2">mass per cent</span>
        ) : null}
      </Heading>
      {data.elements.length ? null : <p className="mt-1 text-ink-2">No readings yet.</p>}
      {data.elements.map((element) => (
        <div
          key={element.element}
          className="grid grid-cols-[3.2rem_1fr_7.5rem] items-center gap-2 border-b border-line"
        >
          <abbr title={element.name} className="text-lead font-bold no-underline">
            {element.element}
          </abbr>
          <RangeRule
            name={element.name}
            isSeen={element.visible !== "not_seen" || element.percent !== null}
            slots={slotsOf(element.element, ordered)}
            pins={pinsOf(element.element, data.shots, scale)}
            mean={element.percent === null ? null : element.percent * scale}
            uncertainty={scaled(element.uncertainty_percent, scale)}
            width={Math.max(width - 190, 160)}
          />
          <span className="text-right text-note leading-tight">{readWords(element, scale)}</span>
        </div>
      ))}
    </section>
  );
}

function slotsOf(element: string, drawn: readonly Promised[]): Slot[] {
  return drawn.flatMap((candidate) =>
    candidate.slots
      .filter((s) => s.element === element)
      .map((s) => ({
        name: candidate.grade,
        low: s.low_percent,
        high: s.high_percent,
        isResidual: s.is_residual,
      })),
  );
}

function pinsOf(element: string, shots: Out["shots"], scale: number): Pin[] {
  return shots.flatMap((shot) =>
    shot.readings
      .filter((r) => r.element === element)
      .map((r) => ({
        id: shot.id,
        name: `shot ${shot.name}`,
        percent: r.percent * scale,
        plusMinus: scaled(r.plus_minus_percent ?? null, scale),
        detected: r.detected ?? true,
        faded: shot.struck !== "" || shot.surface === "coated",
      })),
  );
}

/** What a reading is corrected by, its uncertainty is, too. */
const scaled = (percent: number | null, scale: number) =>
  percent === null ? null : percent * scale;

function readWords(element: Out["elements"][number], scale: number): string {
  if (element.visible === "not_seen" && element.percent === null) return "not seen";
  if (element.limit_percent !== null) return `under ${element.limit_percent.toFixed(3)} %`;
  if (element.percent === null) return "not read";
  const read = element.percent * scale;
  const digits = read >= 10 ? 1 : 2;
  const spread = scaled(element.uncertainty_percent, scale)?.toFixed(digits) ?? "";
  const scattered = element.scattered ? ", shots disagree" : "";
  return `${read.toFixed(digits)} ± ${spread} %${scattered}`;
}

function Settled({ data }: { data: Out }) {
  if (data.settled_by.length === 0) return null;
  return (
    <Section title="What would decide it">
      <ul className="mt-1 flex flex-col gap-1">
        {data.settled_by.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </Section>
  );
}

/** What rests on this blade's steel. */
function Hanging({ data, bladeId }: { data: Out; bladeId: string }) {
  return (
    <Section title="Used by">
      {data.lives.length === 0 ? <p className="text-ink-2">No life yet.</p> : null}
      <ul className="mt-1 flex flex-col gap-1">
        {data.lives.map((life) => (
          <li key={`${life.trial_id}${life.says}`}>
            <Link
              className="underline decoration-line underline-offset-4 hover:decoration-ink"
              to={`/trials/${life.trial_id}/verdict`}
            >
              {life.says}
            </Link>
          </li>
        ))}
      </ul>
      <p className="mt-2 flex flex-wrap gap-x-5">
        <Link className={buttonLook("quiet")} to={`/blades/${bladeId}`}>
          {data.line.code}'s page
        </Link>
        {data.claim ? (
          <Link className={buttonLook("quiet")} to={`/grades/${encodeURIComponent(data.claim)}`}>
            {data.claim}
          </Link>
        ) : null}
      </p>
    </Section>
  );
}
