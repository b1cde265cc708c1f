import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { backupsQuery, holdsQuery, makeBackup, putBackupRule } from "../../api/record";
import { day, plural } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Heading } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { useForm } from "../../ui/useForm";

type Copies = Schemas["CopiesOut"];

/** Copies of the data: how old the newest is, by which rule they are kept, and how one comes back. */
export function Backups() {
  const copies = useQuery(backupsQuery);
  const make = useChange(makeBackup);
  if (copies.isPending) return <Waiting what="the backups" />;
  if (copies.isError) return <Failed error={copies.error} onRetry={() => void copies.refetch()} />;
  const { data } = copies;
  const newest = data.copies[0];
  return (
    <Page width="narrow">
      <div className="flex flex-wrap items-start justify-between gap-4">
        <h1 className="answer max-w-2xl">
          {newest
            ? `The newest backup was made ${day(newest.made_utc)}.`
            : "There is no backup yet."}
        </h1>
        <Button kind="next" disabled={make.isPending} onClick={() => make.mutate(undefined)}>
          {make.isPending ? "Backing up …" : "Back up now"}
        </Button>
      </div>
      {data.failed || make.error ? (
        <p role="alert" className="mt-3 font-medium text-rust">
          The last backup failed: {make.error?.message ?? data.failed}
        </p>
      ) : null}
      {data.second_failed ? (
        <p role="alert" className="mt-3 font-medium text-rust">
          Not on the second disk: {data.second_failed}. It is tried again every hour.
        </p>
      ) : null}
      <div className="mt-5 grid gap-x-12 gap-y-8 bench:grid-cols-[minmax(0,1fr)_minmax(0,340px)]">
        <ul>
          {data.copies.map((copy) => (
            <OneCopy key={copy.name} copy={copy} />
          ))}
        </ul>
        <div>
          <Rule rule={data.rule} />
          <Heading className="mt-8">Restore a backup</Heading>
          <Note className="mt-1">
            Stop Kessik, then run this. It shows what the backup holds, checks it, and saves the
            data that it replaces.
          </Note>
          <code className="mt-1 block overflow-x-auto bg-sheet p-2 font-[inherit] text-note">
            {data.bring_back}
          </code>
        </div>
      </div>
    </Page>
  );
}

function OneCopy({ copy }: { copy: Copies["copies"][number] }) {
  const [asked, setAsked] = useState(false);
  const held = useQuery({ ...holdsQuery(copy.name), enabled: asked });
  return (
    <li className="flex flex-wrap items-baseline gap-x-5 border-t border-line py-2">
      <span className="min-w-40 font-semibold">{day(copy.made_utc)}</span>
      <span>{copy.reason.replaceAll("-", " ")}</span>
      <span className="text-note text-ink-2">{copy.size_mb.toFixed(1)} MB</span>
      <span className="grow text-right">
        {held.data ? (
          <span className="text-note">{heldWords(held.data)}</span>
        ) : (
          <Button kind="quiet" onClick={() => setAsked(true)}>
            Content
          </Button>
        )}
      </span>
    </li>
  );
}

const heldWords = (held: Schemas["HoldsOut"]) =>
  held.wrong
    ? `damaged: ${held.wrong}`
    : [
        plural(held.trials, "trial"),
        plural(held.runs, "run"),
        plural(held.events, "event"),
        held.last_event ? `the last ${day(held.last_event)}` : "",
      ]
        .filter(Boolean)
        .join(", ");

const RULE = {
  daily: { needed: "say how many" },
  weekly: { needed: "say how many" },
  second_folder: "text",
} as const;

function Rule({ rule }: { rule: Schemas["BackupRuleBody"] }) {
  const save = useChange(putBackupRule, () => {
    form.drop();
  });
  const form = useForm({
    draft: "backup-rule",
    kinds: RULE,
    start: {
      daily: String(rule.daily),
      weekly: String(rule.weekly),
      second_folder: rule.second_folder ?? "",
    },
    error: save.error,
  });
  return (
    <form
      onSubmit={form.onSubmit((read) => save.mutate(read))}
      noValidate
      className="grid grid-cols-2 gap-3"
    >
      <Heading className="col-span-2">Number of backups</Heading>
      <Note className="col-span-2">
        A backup is made on each day of use and before every upgrade. Those before an upgrade and
        those made by hand are never deleted.
      </Note>
      <Field label="Daily backups" {...form.field("daily")} />
      <Field label="Weekly backups" {...form.field("weekly")} />
      <Field
        label="Second copy in folder"
        hint="on another disk; empty for none"
        className="col-span-2"
        {...form.field("second_folder")}
      />
      <FormFoot className="col-span-2" form={form} isSaving={save.isPending}>
        Save rule
      </FormFoot>
    </form>
  );
}
