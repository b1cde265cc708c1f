import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { putMethod, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { plainMethod } from "../../api/methods";
import { lineUpQuery, methodsQuery, versionsQuery } from "../../api/queries";
import { putMethodAway } from "../../api/record";
import { plural } from "../../domain/format";
import { TakeAway } from "../../parts/TakeAway";
import { Button } from "../../ui/Button";
import { Notice } from "../../ui/Notice";
import { Page } from "../../ui/Page";
import { elsewhere, refusalAt } from "../../ui/refusal";
import { Heading } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { useDraft } from "../../ui/useDraft";
import { asDraft, asMethod } from "./draft";
import { MethodForm } from "./MethodForm";

type MethodOut = Schemas["MethodOut"];

/** The fields of the wire that a refusal stands at; what is refused elsewhere stands above. */
const AT_FIELDS = new Set([
  "at",
  "checks",
  "contact_mm",
  "dull_gf",
  "ends",
  "every",
  "growth",
  "keen_gf",
  "name",
  "piece",
  "recipe",
  "schedule",
  "stages",
  "start_readings",
  "stations_mm",
  "zone_length_mm",
]);

/** The method of a trial: one of the ready ones or the tester's own, taken as it is or changed. */
export function MethodPage() {
  const { trialId = "" } = useParams();
  const trial = useQuery(lineUpQuery(trialId));
  const known = useQuery(methodsQuery);
  const versions = useQuery(versionsQuery(trialId));
  if (trial.isPending || known.isPending || versions.isPending)
    return <Waiting what="the method" />;
  if (trial.isError) return <Failed error={trial.error} onRetry={() => void trial.refetch()} />;
  if (known.isError) return <Failed error={known.error} onRetry={() => void known.refetch()} />;
  if (versions.isError)
    return <Failed error={versions.error} onRetry={() => void versions.refetch()} />;
  return <Bench key={trialId} lineUp={trial.data} known={known.data} versions={versions.data} />;
}

function Bench({
  lineUp,
  known,
  versions,
}: {
  lineUp: Schemas["LineUpOut"];
  known: Schemas["KnownMethodsOut"];
  versions: MethodOut[];
}) {
  const navigate = useNavigate();
  const { trial } = lineUp;
  const [draft, setDraft, , forget] = useDraft(`method:${trial.id}`, {
    ...asDraft(plainMethod(trial.method)),
    from: "",
  });
  const [tried, setTried] = useState(false);
  const made = asMethod(draft);
  const keptNow = asMethod(asDraft(plainMethod(trial.method)));
  const inForce = "method" in keptNow ? keptNow.method : null;
  const runs = lineUp.runs.filter((r) => !r.practice).length;
  const save = useChange(
    (choice: Schemas["MethodChoice"]) => putMethod(trial.id, choice),
    () => {
      forget();
      navigate(`/trials/${trial.id}/plan`);
    },
  );
  const changed = "unread" in made || JSON.stringify(made.method) !== JSON.stringify(inForce);
  const at = (field: string) => {
    const isUnread = tried && "unread" in made && made.unread.includes(field);
    return isUnread ? "A number is missing here" : refusalAt(save.error, field);
  };
  const take = (method: MethodOut, from: string) => {
    setDraft({ ...asDraft(plainMethod(method)), from });
    save.reset();
  };
  const keep = () => {
    setTried(true);
    if ("method" in made) save.mutate({ method: made.method, from_method_id: draft.from || null });
  };
  return (
    <Page>
      <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-3">
        <h1 className="answer min-w-0 max-w-4xl basis-[32rem] grow">
          {trial.method.name}, version {trial.method.number}: a run {trial.method.ends_when}.
        </h1>
        <Button kind={changed ? "next" : "plain"} onClick={keep} disabled={save.isPending}>
          {runs ? "Save as new version" : "Save method"}
        </Button>
      </div>
      {runs ? (
        <p className="mt-1 text-ink-2">
          {plural(runs, "run")} cut so far {runs === 1 ? "keeps" : "keep"} the version{" "}
          {runs === 1 ? "it was" : "they were"} cut under; where versions differ in what matters,
          they are not compared.
        </p>
      ) : null}
      <Notice says={elsewhere(save.error, AT_FIELDS)} className="mt-2" />
      <div className="mt-5 grid gap-x-12 gap-y-8 bench:grid-cols-[300px_minmax(0,1fr)]">
        <nav aria-label="Ready methods">
          <Heading>Schools</Heading>
          <Takes methods={known.ready} chosen={draft.base.school} onTake={(m) => take(m, "")} />
          {known.own.length ? (
            <>
              <Heading className="mt-5">Your own</Heading>
              <Takes
                methods={known.own.filter((m) => !m.archived)}
                chosen={draft.from}
                byId
                onTake={(m) => take(m, m.id === trial.method.id ? "" : m.id)}
              />
              <PutAwayMethods own={known.own} />
            </>
          ) : null}
          {versions.length > 1 ? (
            <>
              <Heading className="mt-5">Versions in this trial</Heading>
              <ol>
                {versions.map((v) => (
                  <li key={v.id} className="border-b border-line py-2 text-note">
                    <b>version {v.number}</b>
                    {v.id === trial.method.id ? ", in force" : ""}: {v.ends_when}; checked{" "}
                    {v.checked}
                  </li>
                ))}
              </ol>
            </>
          ) : null}
        </nav>
        <MethodForm
          draft={draft}
          at={at}
          onChange={(next) => {
            setDraft({ ...next, from: draft.from });
          }}
        />
      </div>
    </Page>
  );
}

/** Methods of one's own that are in the way: into the archive, out of it, or into the bin. */
function PutAwayMethods({ own }: { own: readonly Schemas["OwnMethodOut"][] }) {
  const change = useChange(({ id, archived }: { id: string; archived: boolean }) =>
    putMethodAway(id, archived),
  );
  return (
    <details className="mt-1">
      <summary className="min-h-11 cursor-pointer text-note">Archive or delete methods</summary>
      <ul>
        {own.map((m) => (
          <li key={m.line_id} className="flex flex-wrap items-center gap-x-3 border-b border-line">
            <span className="grow text-note">{m.name}</span>
            <Button
              kind="quiet"
              onClick={() => change.mutate({ id: m.line_id, archived: !m.archived })}
            >
              {m.archived ? "Restore" : "Archive"}
            </Button>
            <TakeAway kind="method" ownerId={m.line_id}>
              Delete
            </TakeAway>
          </li>
        ))}
      </ul>
    </details>
  );
}

function Takes({
  methods,
  chosen,
  byId = false,
  onTake,
}: {
  methods: MethodOut[];
  chosen: string;
  byId?: boolean;
  onTake: (method: MethodOut) => void;
}) {
  return (
    <ul className="mt-1">
      {methods.map((m) => {
        const on = (byId ? m.id : m.school) === chosen;
        return (
          <li key={`${m.school}${m.id}`} className="border-b border-line">
            <button
              type="button"
              aria-pressed={on}
              onClick={() => onTake(m)}
              className={`min-h-11 w-full cursor-pointer px-2 py-1.5 text-left
                ${on ? "bg-ink text-paper" : "hover:bg-sheet"}`}
            >
              <b>{m.name}</b>
              <span className={`block text-note ${on ? "" : "text-ink-2"}`}>{m.ends_when}</span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
