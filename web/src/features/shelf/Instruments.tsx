import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import {
  putInstrument,
  putInstrumentAway,
  putReferenceCheck,
  putShotsAside,
  useChange,
} from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { useFollow } from "../../api/follow";
import { instrumentsQuery, shotsQuery } from "../../api/queries";
import { ReferenceTrail } from "../../charts/ReferenceTrail";
import { day, plural, typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { labelOf, WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { Failed, Waiting } from "../../ui/State";
import { useForm } from "../../ui/useForm";

type Instrument = Schemas["InstrumentOut"];
type News = Schemas["InstrumentNewsOut"];

const KINDS: Record<Instrument["kind"], { where: string; example: string; reads: boolean }> = {
  force: {
    where: "Port",
    example: "/dev/ttyUSB0 or 192.168.1.20:4001",
    reads: true,
  },
  rockwell: {
    where: "Port",
    example: "/dev/ttyUSB1 or 192.168.1.20:4002",
    reads: true,
  },
  xrf: {
    where: "Folder it writes results to",
    example: "/home/bench/shots",
    reads: false,
  },
  camera: {
    where: "Folder it writes pictures to",
    example: "/home/bench/pictures",
    reads: false,
  },
  pedal: { where: "Port", example: "/dev/ttyACM0", reads: false },
};

/** Shots that an analyser wrote and that nothing has used yet. */
function WaitingShots() {
  const shots = useQuery(shotsQuery);
  const aside = useChange(putShotsAside);
  if (!shots.data?.length) return null;
  return (
    <section aria-label="Unused shots" className="mt-8">
      <h2 className="text-lead font-bold">Unused shots</h2>
      <ul>
        {shots.data.map((file) => (
          <li
            key={file.id}
            className="flex flex-wrap items-baseline gap-x-5 border-b border-line py-2"
          >
            <span className="font-semibold">{file.name}</span>
            <span className="text-ink-2">
              {Object.entries(file.shots)
                .map(([code, many]) => `${code}: ${plural(many, "shot")}`)
                .join(", ")}
              ; read {day(file.read_utc)}
            </span>
            <Button kind="quiet" onClick={() => aside.mutate(file.id)} disabled={aside.isPending}>
              Dismiss
            </Button>
          </li>
        ))}
      </ul>
      {aside.error ? <p className="mt-1 text-rust">{aside.error.message}</p> : null}
    </section>
  );
}

/**
 * What readings, pictures and taps come from: where it is plugged in, whether it is there, and how
 * true it reads.
 */
export function Instruments() {
  const instruments = useQuery(instrumentsQuery);
  const queries = useQueryClient();
  const [latest, setLatest] = useState<Record<string, News>>({});
  useFollow(
    () => "/api/instruments/follow",
    ({ instrument }) => {
      if (!instrument) return;
      setLatest((known) => ({ ...known, [instrument.instrument_id]: instrument }));
      if (instrument.what === "result") void queries.invalidateQueries({ queryKey: ["shots"] });
      if (instrument.what === "there" || instrument.what === "lost")
        void queries.invalidateQueries({ queryKey: ["instruments"] });
    },
  );
  if (instruments.isPending) return <Waiting what="the instruments" />;
  if (instruments.isError)
    return <Failed error={instruments.error} onRetry={() => void instruments.refetch()} />;
  return (
    <div className="grid gap-x-12 gap-y-8 pt-4 bench:grid-cols-[minmax(0,1fr)_21rem]">
      <section aria-label="Your instruments">
        {instruments.data.length === 0 ? (
          <p className="text-ink-2">
            None is named yet. Readings can always be typed; an instrument that is connected here
            sends them to the bench. Practice runs have the virtual bench.
          </p>
        ) : null}
        <ul>
          {instruments.data.map((each) => (
            <Row key={each.id} instrument={each} news={latest[each.id]} />
          ))}
        </ul>
        <WaitingShots />
      </section>
      <div>
        <NewInstrument />
        <p className="mt-6 border-t border-line pt-4">
          Pair a phone under{" "}
          <Link className="font-semibold underline underline-offset-4" to="/devices">
            Devices
          </Link>
          .
        </p>
        <p className="mt-3 text-note text-ink-2">
          An XRF analyser is a radiation source: only for those licensed or trained for it, under
          the local rules, and never with the sample held by hand.
        </p>
      </div>
    </div>
  );
}

function Row({ instrument, news }: { instrument: Instrument; news: News | undefined }) {
  const away = useChange(putInstrumentAway);
  const save = useChange(putInstrument);
  const kind = KINDS[instrument.kind];
  const means = instrument.checks.map(
    (c) => c.readings.reduce((sum, r) => sum + r, 0) / c.readings.length,
  );
  const last = instrument.checks.at(-1);
  const { checks, checked_today, drift, is_there, last_text, unit, ...kept } = instrument;
  return (
    <li className="border-b border-line py-4" data-testid={`instrument-${instrument.name}`}>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <b className="text-lead">{instrument.name}</b>
        <span className="text-ink-2">{labelOf("instruments", instrument.kind)}</span>
        <span
          role="status"
          className={`font-semibold
            ${!instrument.in_use ? "text-ink-2" : is_there ? "text-next" : "text-rust"}`}
        >
          {!instrument.in_use ? "unplugged" : is_there ? "there" : "not found"}
        </span>
        <span className="ml-auto flex gap-4 text-note">
          <button
            type="button"
            className="min-h-11 cursor-pointer underline underline-offset-4"
            onClick={() => save.mutate({ ...kept, in_use: !instrument.in_use })}
          >
            {instrument.in_use ? "Unplug" : "Connect"}
          </button>
          <button
            type="button"
            className="min-h-11 cursor-pointer underline underline-offset-4"
            onClick={() => away.mutate(instrument.id)}
          >
            Archive
          </button>
        </span>
      </div>
      <p className="text-note text-ink-2">
        {instrument.address}
        {kind.reads ? `, ${instrument.range_low} to ${instrument.range_high} ${unit}` : ""}
        {news?.text ? ` · ${news.text}` : last_text ? ` · ${last_text}` : ""}
      </p>
      {kind.reads ? (
        <div className="mt-3 flex flex-wrap items-start gap-x-8 gap-y-3">
          <div>
            <ReferenceTrail title={`${instrument.name} on its reference`} means={means} />
            <p
              className={`mt-1 max-w-80 text-note
                ${drift?.warns ? "font-semibold text-rust" : "text-ink-2"}`}
            >
              {last
                ? `Checked ${day(last.made_utc)}${last.reference ? ` on ${last.reference}` : ""}; `
                : ""}
              {drift
                ? drift.words
                : last
                  ? "the next check shows whether it drifts"
                  : "Never checked on a reference"}
              .{last && !checked_today ? " Not checked today." : ""}
            </p>
          </div>
          <Check instrument={instrument} news={news} />
        </div>
      ) : null}
    </li>
  );
}

/** The day's check: readings typed with strokes between them, or sent by the instrument itself. */
function Check({ instrument, news }: { instrument: Instrument; news: News | undefined }) {
  const [typed, setTyped] = useState("");
  const [reference, setReference] = useState(instrument.reference);
  const [id, setId] = useState(newId);
  const [heard, setHeard] = useState("");
  const record = useChange(putReferenceCheck, () => {
    setTyped("");
    setId(newId());
  });
  if (news?.what === "reading" && news.reading_id !== heard) {
    setHeard(news.reading_id);
    setTyped((before) => [before, String(news.value)].filter(Boolean).join("/"));
  }
  const parts = typed.split(/[/;+\s]+/).filter(Boolean);
  const readings = parts.map(typedNumber);
  const bad = parts.find((_, i) => typeof readings[i] !== "number");
  const refused = record.error instanceof Refused ? record.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (parts.length === 0 || bad !== undefined) return;
    record.mutate({
      instrumentId: instrument.id,
      check: { id, readings: readings as number[], reference, note: "" },
    });
  };
  return (
    <form onSubmit={submit} noValidate className="grid max-w-96 grow grid-cols-2 gap-3">
      <Field
        label="On its reference"
        unit={instrument.unit}
        placeholder="201/199/200"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        error={bad === undefined ? refused?.at("readings") : `“${bad}” is not a number`}
      />
      <Field label="Reference" value={reference} onChange={(e) => setReference(e.target.value)} />
      <Button type="submit" className="col-span-2 justify-self-start" disabled={record.isPending}>
        Record the check
      </Button>
    </form>
  );
}

const FORM = {
  name: "text",
  address: "text",
  baud: LIMITS.baud,
  range_low: "number",
  range_high: "number",
  reference: "text",
} as const;
const EMPTY = {
  name: "",
  address: "",
  baud: String(LIMITS.baud.default),
  range_low: "",
  range_high: "",
  reference: "",
};

function NewInstrument() {
  const [kind, setKind] = useState<Instrument["kind"]>("force");
  const [id, setId] = useState(newId);
  const save = useChange(putInstrument, () => {
    form.drop();
    setId(newId());
  });
  const form = useForm({ draft: "new-instrument", kinds: FORM, start: EMPTY, error: save.error });
  const of = KINDS[kind];
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const read = form.read();
    if (read)
      save.mutate({ ...read, id, kind, baud: read.baud ?? LIMITS.baud.default, in_use: true });
  };
  return (
    <form onSubmit={submit} noValidate aria-label="New instrument" className="flex flex-col gap-3">
      <h2 className="text-lead font-bold">Connect an instrument</h2>
      <Choice label="Kind" value={kind} onPick={(picked) => setKind(picked as Instrument["kind"])}>
        <Options of={WORDS.instruments} />
      </Choice>
      <Field label="Name" {...form.field("name")} />
      <Field label={of.where} hint={`for example ${of.example}`} {...form.field("address")} />
      {kind === "xrf" || kind === "camera" ? null : (
        <Field label="Speed" unit="baud" {...form.field("baud")} />
      )}
      {of.reads ? (
        <>
          <div className="grid grid-cols-2 gap-3">
            <Field label="Reads from" {...form.field("range_low")} />
            <Field label="to" {...form.field("range_high")} />
          </div>
          <Field
            label="Reference"
            placeholder={kind === "force" ? "new utility edge, plain test line" : "test block, HRC"}
            {...form.field("reference")}
          />
        </>
      ) : null}
      <Notice says={form.notice} />
      <Button kind="next" type="submit" disabled={save.isPending} className="self-start">
        Connect
      </Button>
    </form>
  );
}
