import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { runQuery } from "../../api/queries";
import { lookWithout, strikeOut } from "../../api/record";
import { counted, unbroken } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Tick } from "../../ui/Tick";

type Run = Schemas["AnswerOut"]["runs"][number];
type Picked = { events: readonly string[]; runs: readonly string[] };

/** Readings or edges taken out for a look: the answer beside the old one, and nothing stored until
 *  it is done with a reason.
 */
export function LookWithout({
  trialId,
  runs,
  onDone,
}: {
  trialId: string;
  runs: readonly Run[];
  onDone: () => void;
}) {
  const [picked, setPicked] = useState<Picked>({ events: [], runs: [] });
  const body = { event_ids: [...picked.events], run_ids: [...picked.runs] };
  const isAny = picked.events.length + picked.runs.length > 0;
  const look = useQuery({
    queryKey: ["look-without", trialId, body],
    queryFn: () => lookWithout(trialId, body),
    enabled: isAny,
    placeholderData: (before) => before,
  });
  const toggle = (list: readonly string[], id: string) =>
    list.includes(id) ? list.filter((each) => each !== id) : [...list, id];
  return (
    <div>
      {isAny && look.data ? <Beside found={look.data} /> : null}
      <Notice says={look.error?.message} className="font-medium" />
      {isAny ? <ForGood trialId={trialId} body={body} onDone={onDone} /> : null}
      <ul className="mt-4">
        {runs.map((run) => (
          <li key={run.run.id} className="border-t border-line py-1.5">
            <OneRun
              run={run}
              picked={picked}
              onRun={() => setPicked({ ...picked, runs: toggle(picked.runs, run.run.id) })}
              onEvent={(id) => setPicked({ ...picked, events: toggle(picked.events, id) })}
            />
          </li>
        ))}
      </ul>
    </div>
  );
}

function Beside({ found }: { found: Schemas["ComparedOut"] }) {
  return (
    <div className="grid gap-x-6 gap-y-3 bench:grid-cols-2">
      {(
        [
          ["All data", found.now],
          ["Without them", found.then],
        ] as const
      ).map(([name, answer]) => (
        <section key={name} aria-label={name} className="border-t-[1.5px] border-ink pt-2">
          <h3 className="text-note font-semibold text-ink-2">{name}</h3>
          <p className="font-semibold">{unbroken(answer.headline)}</p>
          <dl className="mt-2 text-note">
            {Object.entries(answer.lives).map(([blade, life]) => (
              <div key={blade} className="flex gap-3">
                <dt className="min-w-20 font-semibold">{blade}</dt>
                <dd
                  className={found.now.lives[blade] === found.then.lives[blade] ? "" : "font-bold"}
                >
                  {unbroken(life)}
                </dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </div>
  );
}

function OneRun({
  run,
  picked,
  onRun,
  onEvent,
}: {
  run: Run;
  picked: Picked;
  onRun: () => void;
  onEvent: (id: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const whole = useQuery({ ...runQuery(run.run.id), enabled: open });
  return (
    <>
      <div className="flex items-center gap-3">
        <Mark mark={run.mark} size={16} />
        <span className="grow">
          <b>{run.blade}</b>, edge {run.run.edge}
        </span>
        <Tick label="exclude this edge" checked={picked.runs.includes(run.run.id)} onTick={onRun} />
        <Button kind="quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Close" : "Readings"}
        </Button>
      </div>
      {open ? (
        <div className="flex flex-wrap gap-x-5 pl-7">
          {(whole.data?.state.checks ?? [])
            .filter((check) => !check.struck)
            .map((check) => (
              <Tick
                key={check.event_id}
                label={`${counted(check.count)}: ${said(check)}`}
                checked={picked.events.includes(check.event_id)}
                onTick={() => onEvent(check.event_id)}
              />
            ))}
        </div>
      ) : null}
    </>
  );
}

function said(check: Schemas["CheckOut"]): string {
  if (check.force_gf !== null) return `${Math.round(check.force_gf)} gf`;
  if (check.value !== null) return String(check.value);
  return check.seen || check.outcome || check.kind;
}

/** Only with a reason is any of it kept. */
function ForGood({
  trialId,
  body,
  onDone,
}: {
  trialId: string;
  body: Schemas["WithoutBody"];
  onDone: () => void;
}) {
  const [reason, setReason] = useState("");
  const out = useChange((why: string) => strikeOut(trialId, { ...body, reason: why }), onDone);
  const refused = out.error instanceof Refused ? out.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    out.mutate(reason);
  };
  return (
    <form onSubmit={submit} noValidate className="mt-4 flex flex-wrap items-start gap-3">
      <Field
        label="Exclude them, because"
        className="grow"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        error={refused?.message}
      />
      <Button type="submit" className="mt-6" disabled={!reason.trim() || out.isPending}>
        Exclude them
      </Button>
      <Note className="w-full">
        Nothing is saved yet. Excluded data stay in the record and can be included again.
      </Note>
    </form>
  );
}
