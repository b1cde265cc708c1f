import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useChange } from "../../api/changes";
import {
  type AxisKey,
  choiceQuery,
  deleteUse,
  putUse,
  type UseBody,
  usesQuery,
} from "../../api/choice";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Fold } from "../../ui/Fold";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Page } from "../../ui/Page";
import { elsewhere, refusalAt } from "../../ui/refusal";
import { Slide } from "../../ui/Slide";
import { Failed, Waiting } from "../../ui/State";
import { TextButton } from "../../ui/TextButton";
import { Tick } from "../../ui/Tick";
import { Candidates } from "./Candidates";
import { Upkeep } from "./Upkeep";

const MOST = 10;
const NEW = "";
const NAMED: ReadonlySet<string> = new Set(["name"]);
const PLAIN: UseBody = {
  name: "A blade for every day",
  weights: { edge: 5, price: 3 },
  life: "",
  soak_id: "",
  by: "blade",
  in_hand: false,
  steel_to_lose_mm: 6,
  hour_costs: 0,
};

/** A use as it is asked about. */
function withoutId({ id: _, ...use }: UseBody & { id: string }): UseBody {
  return use;
}

/** Which blade for a stated use, with the trade-off as it is. */
export function Choose() {
  const uses = useQuery(usesQuery);
  const [id, setId] = useState<string>();
  if (uses.isPending) return <Waiting what="the uses" />;
  if (uses.isError) return <Failed error={uses.error} onRetry={() => void uses.refetch()} />;
  const shown = id ?? uses.data[0]?.id ?? NEW;
  const kept = uses.data.find((use) => use.id === shown);
  return (
    <Weighed
      key={shown}
      start={kept ? withoutId(kept) : PLAIN}
      keptId={kept?.id}
      uses={uses.data}
      onPick={(to) => setId(to)}
    />
  );
}

function Weighed({
  start,
  keptId,
  uses,
  onPick,
}: {
  start: UseBody;
  keptId: string | undefined;
  uses: ReadonlyArray<{ id: string; name: string }>;
  onPick: (id: string) => void;
}) {
  const [use, setUse] = useState<UseBody>(start);
  // what is typed as its name changes nothing of the answer until it is kept
  const found = useQuery(choiceQuery({ ...use, name: start.name }));
  const [fresh] = useState(newId);
  const keep = useChange(putUse, () => onPick(keptId ?? fresh));
  const gone = useChange(deleteUse, () => onPick(NEW));
  const change = (part: Partial<UseBody>) => setUse({ ...use, ...part });
  const weigh = (key: AxisKey, to: number) => change({ weights: { ...use.weights, [key]: to } });
  if (found.isPending) return <Waiting what="what is known of the blades" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const {
    headline,
    bargain,
    flips,
    candidates,
    axes,
    lives,
    soaks,
    no_lives,
    notes,
    trials_done,
    trials,
  } = found.data;
  const weighed = axes.filter((axis) => (use.weights[axis.key] ?? 0) > 0);
  return (
    <Page width="wide">
      <h1 className="answer max-w-5xl" aria-live="polite">
        {headline}
      </h1>
      <p className="mt-1 max-w-4xl text-ink-2">{[bargain, ...flips].filter(Boolean).join(" ")}</p>
      <div className="mt-4 gap-10 bench:grid bench:grid-cols-[17rem_minmax(0,1fr)]">
        <section aria-label="Use" className="flex flex-col gap-3">
          {uses.length ? (
            <Choice label="Use" value={keptId ?? NEW} onPick={onPick}>
              {uses.map((each) => (
                <Option key={each.id} value={each.id}>
                  {each.name}
                </Option>
              ))}
              <Option value={NEW}>A new one</Option>
            </Choice>
          ) : null}
          {axes.map((axis) => (
            <Slide
              key={axis.key}
              label={`${axis.label}, known of ${axis.known_of}`}
              value={use.weights[axis.key] ?? 0}
              most={MOST}
              says={
                (use.weights[axis.key] ?? 0) > 0 ? String(use.weights[axis.key]) : "not weighed"
              }
              disabled={axis.known_of === 0}
              onMove={(to) => weigh(axis.key, to)}
            />
          ))}
          <Note>
            Weights trade ratios: edge at 6 and price at 3 means that 10 % longer makes good 21 %
            dearer. A gap is never filled with an average.
          </Note>
          <Fold title="What counts">
            <div className="flex flex-col gap-3">
              <Choice label="Lives" value={use.life} onPick={(life) => change({ life })}>
                <Option value="">Those of most blades</Option>
                {lives.map((each) => (
                  <Option key={each.value} value={each.value}>
                    {each.says}
                  </Option>
                ))}
              </Choice>
              <Choice label="Rust in" value={use.soak_id} onPick={(soak_id) => change({ soak_id })}>
                <Option value="">No soak</Option>
                {soaks.map((each) => (
                  <Option key={each.value} value={each.value}>
                    {each.says}
                  </Option>
                ))}
              </Choice>
              <Choice
                label="Choose among"
                value={use.by}
                onPick={(by) => change({ by: by as NonNullable<UseBody["by"]> })}
              >
                <Options of={WORDS.chosenBy} />
              </Choice>
              <Tick
                label="only what is at hand"
                checked={use.in_hand ?? false}
                onTick={(in_hand) => change({ in_hand })}
              />
              <Amount
                label="Steel to lose until worn out"
                unit="mm"
                value={use.steel_to_lose_mm ?? 6}
                least={LIMITS.steel_to_lose_mm.least}
                most={LIMITS.steel_to_lose_mm.most}
                onTell={(steel_to_lose_mm) => change({ steel_to_lose_mm })}
              />
              <Amount
                label="An hour of sharpening costs"
                unit="in the price's currency"
                value={use.hour_costs ?? 0}
                least={0}
                most={LIMITS.stock.most}
                onTell={(hour_costs) => change({ hour_costs })}
              />
            </div>
          </Fold>
          <Field
            label="Name of this use"
            value={use.name}
            error={refusalAt(keep.error, "name")}
            onChange={(event) => change({ name: event.target.value })}
          />
          <p className="flex gap-4">
            <Button
              kind="next"
              disabled={keep.isPending || !use.name.trim()}
              onClick={() => keep.mutate({ ...use, id: keptId ?? fresh })}
            >
              Save use
            </Button>
            {keptId ? (
              <TextButton onClick={() => gone.mutate(keptId)}>Delete use</TextButton>
            ) : null}
          </p>
          <Notice says={elsewhere(keep.error, NAMED) ?? gone.error?.message} />
        </section>
        <section aria-label="Blades" className="mt-6 min-w-0 bench:mt-0">
          {trials_done < trials ? (
            <Note>
              {trials_done} of {trials} trials are worked out; the others follow.
            </Note>
          ) : null}
          {no_lives ? <Note>No lives to weigh yet: {no_lives}.</Note> : null}
          {notes.map((note) => (
            <Note key={note}>{note}</Note>
          ))}
          <Candidates candidates={candidates} axes={weighed} />
          <Upkeep />
        </section>
      </div>
    </Page>
  );
}

/** A number that takes effect once it can be. */
function Amount({
  label,
  unit,
  value,
  least,
  most,
  onTell,
}: {
  label: string;
  unit: string;
  value: number;
  least: number;
  most: number;
  onTell: (value: number) => void;
}) {
  const [typed, setTyped] = useState(String(value));
  const told = Number(typed.replace(",", "."));
  const isWrong = !typed.trim() || Number.isNaN(told) || told < least || told > most;
  return (
    <Field
      label={label}
      unit={unit}
      inputMode="decimal"
      value={typed}
      error={isWrong ? `give ${least} to ${most}` : undefined}
      onChange={(event) => {
        setTyped(event.target.value);
        const next = Number(event.target.value.replace(",", "."));
        if (event.target.value.trim() && next >= least && next <= most) onTell(next);
      }}
    />
  );
}
