import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { useChange } from "../../api/changes";
import { methodsQuery, shelfQuery } from "../../api/queries";
import { WORDS } from "../../domain/words";
import { buttonLook } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Note } from "../../ui/Note";
import { Toggles } from "../../ui/Toggles";
import { useDraft } from "../../ui/useDraft";
import { useForm } from "../../ui/useForm";
import { TrialBlades } from "./TrialBlades";
import {
  BLANK_FACTS,
  bladesOf,
  blankTrial,
  namedTwice,
  saveTrial,
  TRIAL_KINDS,
  type TrialDraft,
  type TrialFacts,
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
  const [search] = useSearchParams();
  const isForPaper = search.get("for") === "paper";
  const shelf = useQuery(shelfQuery);
  const methods = useQuery(methodsQuery);
  const schools = methods.data?.ready ?? [];
  const [start] = useState(blankTrial);
  const [draft, setDraft, drop] = useDraft<TrialDraft>("new-trial", start);
  const onShelf = (code: string) =>
    (shelf.data?.blades ?? []).find(
      ({ blade }) => !blade.archived_utc && blade.code.toLowerCase() === code.trim().toLowerCase(),
    )?.blade;
  const make = useChange(
    (facts: TrialFacts) =>
      saveTrial(
        draft,
        facts,
        schools.find((m) => m.school === facts.school),
        onShelf,
      ),
    () => {
      drop();
      form.drop();
      navigate(`/trials/${draft.trialId}/${isForPaper ? "paper" : "line-up"}`);
    },
    () => {
      setDraft(draft);
      form.set(form.typed);
      navigate("/");
    },
  );
  const asked = search.get("school");
  const form = useForm({
    draft: asked ? `new-trial-facts:${asked}` : "new-trial-facts",
    kinds: TRIAL_KINDS,
    start: asked ? { ...BLANK_FACTS, school: asked } : BLANK_FACTS,
    error: make.error,
  });
  const chosen = schools.find((m) => m.school === form.typed.school);
  const cutsRope = chosen === undefined || chosen.medium === "rope" || chosen.medium === "mixed";
  const lines = bladesOf(draft);
  const twice = namedTwice(lines);
  const isUnread = Boolean(twice) || lines.some((line) => typedEdge(line.edge) === undefined);
  const submit = form.onSubmit((facts) => {
    if (!isUnread) make.mutate(cutsRope ? facts : { ...facts, rope_diameter_mm: null });
  });
  const compare = (compares: TrialDraft["compares"]) => {
    setDraft({ ...draft, compares });
    form.set({ factor: compares === "preparations" ? "edge_finish" : "steel" });
  };
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
        {...form.field("name")}
        placeholder="Raft rope, spring"
        autoFocus
      />
      <Choice
        label={`What varies between the ${draft.compares}?`}
        {...form.choice("factor")}
        hint="Everything else is to be held equal."
      >
        <Options of={WORDS.factors} />
      </Choice>
      <Choice label="How is it cut and checked?" {...form.choice("school")} hint={chosen?.note}>
        {schools.map((m) => (
          <Option key={m.school} value={m.school}>
            {m.name}
          </Option>
        ))}
      </Choice>
      <div className={cutsRope ? "grid grid-cols-[1fr_9rem] gap-3" : ""}>
        <Field
          label="What is cut?"
          {...form.field("medium")}
          placeholder={MEDIA[chosen?.medium ?? "rope"]}
        />
        {cutsRope ? (
          <Field label="Rope diameter" unit="mm" {...form.field("rope_diameter_mm")} />
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
        {...form.choice("settled_kind")}
        hint={
          "Fixed before the first cut. The first edges of a blade lie on tired steel and read " +
          "low."
        }
      >
        <Options of={WORDS.settledRules} />
      </Choice>
      <Note>
        A run {chosen?.ends_when ?? "ends by its method"}. Everything of the method can be changed
        in the plan.
      </Note>
      <FormFoot form={form} isSaving={make.isPending}>
        {isForPaper ? "Set up the paper sheet" : "Set up the line-up"}
      </FormFoot>
      <Link to="/ways" className={`${buttonLook("quiet")} self-start px-0`}>
        Which way of testing suits my question?
      </Link>
    </form>
  );
}
