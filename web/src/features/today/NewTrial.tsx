import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { useChange } from "../../api/changes";
import { Refused } from "../../api/client";
import { methodsQuery, shelfQuery } from "../../api/queries";
import { typedNumber } from "../../domain/format";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Toggles } from "../../ui/Toggles";
import { useDraft } from "../../ui/useDraft";
import { TrialBlades } from "./TrialBlades";
import {
  bladesOf,
  blankTrial,
  type Factor,
  saveTrial,
  type TrialDraft,
  typedEdge,
} from "./trialDraft";

const MEDIA: Record<string, string> = {
  rope: "hemp rope, lot 7",
  board: "double-wall board, lot 3",
  card: "card with silica",
  mixed: "rope, board and abrasive sheet",
};

/**
 * Name the question and the blades: the shortest way from nothing to a line-up. A code of the shelf
 * is that blade.
 */
export function NewTrial() {
  const navigate = useNavigate();
  const shelf = useQuery(shelfQuery);
  const methods = useQuery(methodsQuery);
  const schools = methods.data?.ready ?? [];
  const [start] = useState(blankTrial);
  const [draft, setDraft, drop] = useDraft<TrialDraft>("new-trial", start);
  const set = (part: Partial<TrialDraft>) => setDraft({ ...draft, ...part });
  const onShelf = (code: string) =>
    (shelf.data?.blades ?? []).find(
      ({ blade }) => !blade.archived_utc && blade.code.toLowerCase() === code.trim().toLowerCase(),
    )?.blade;
  const chosen = schools.find((m) => m.school === draft.school);
  const cutsRope = chosen === undefined || chosen.medium === "rope" || chosen.medium === "mixed";
  const make = useChange(
    () => saveTrial(cutsRope ? draft : { ...draft, diameter: "" }, chosen, onShelf),
    () => {
      drop();
      navigate(`/trials/${draft.trialId}/line-up`);
    },
    () => {
      setDraft(draft);
      navigate("/");
    },
  );
  const refused = make.error instanceof Refused ? make.error : null;
  const lines = bladesOf(draft);
  const twice = lines.find(
    (line, at) =>
      line.code.trim() &&
      lines.findIndex((o) => o.code.trim().toLowerCase() === line.code.trim().toLowerCase()) !== at,
  );
  const badRope =
    cutsRope && typedNumber(draft.diameter) === undefined
      ? `“${draft.diameter}” is not a number`
      : undefined;
  const badEdge = lines.some((line) => typedEdge(line.edge) === undefined);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!twice && !badRope && !badEdge) make.mutate(undefined);
  };
  const compare = (compares: TrialDraft["compares"]) =>
    set({ compares, factor: compares === "preparations" ? "edge_finish" : "steel" });
  return (
    <form onSubmit={submit} className="flex flex-col gap-5" noValidate>
      <Toggles
        says="What is compared"
        value={draft.compares}
        onPick={compare}
        choices={[
          ["blades", "Several blades"],
          ["preparations", "One blade, several preparations"],
        ]}
      />
      <Field
        label="What is the trial called?"
        value={draft.name}
        onChange={(e) => set({ name: e.target.value })}
        error={refused?.at("name")}
        placeholder="Raft rope, spring"
        autoFocus
      />
      <Choice
        label={`What varies between the ${draft.compares}?`}
        value={draft.factor}
        onPick={(picked) => set({ factor: picked as Factor })}
        hint="Everything else is to be held equal."
      >
        <Options of={WORDS.factors} />
      </Choice>
      <Choice
        label="How is it cut and checked?"
        value={draft.school}
        onPick={(school) => set({ school })}
        hint={chosen?.note}
      >
        {schools.map((m) => (
          <Option key={m.school} value={m.school}>
            {m.name}
          </Option>
        ))}
      </Choice>
      <div className={cutsRope ? "grid grid-cols-[1fr_9rem] gap-3" : ""}>
        <Field
          label="What is cut?"
          value={draft.medium}
          onChange={(e) => set({ medium: e.target.value })}
          placeholder={MEDIA[chosen?.medium ?? "rope"]}
        />
        {cutsRope ? (
          <Field
            label="Rope diameter"
            unit="mm"
            inputMode="decimal"
            value={draft.diameter}
            onChange={(e) => set({ diameter: e.target.value })}
            error={badRope ?? refused?.at("rope_diameter_mm")}
          />
        ) : null}
      </div>
      <TrialBlades
        draft={draft}
        onDraft={setDraft}
        shelf={shelf.data}
        onShelf={onShelf}
        twice={twice}
      />
      <Choice
        label="Which edges count?"
        term="settled edge"
        value={draft.counting}
        onPick={(counting) => set({ counting: counting as TrialDraft["counting"] })}
        hint={
          "Fixed before the first cut. The first edges of a blade lie on tired steel and read " +
          "low."
        }
      >
        <Options of={WORDS.settledRules} />
      </Choice>
      <p className="text-note text-ink-2">
        A run {chosen?.ends_when ?? "ends by its method"}. Everything of the method can be changed
        in the plan.
      </p>
      {make.error && !["name", "rope_diameter_mm"].includes(refused?.problem.field ?? "") ? (
        <p role="alert" className="font-medium text-rust">
          {make.error.message}
        </p>
      ) : null}
      <Button kind="next" type="submit" disabled={make.isPending}>
        Set up the line-up
      </Button>
    </form>
  );
}
