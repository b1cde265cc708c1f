import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { putCorrection, putLot, putLotAway, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { lotKindsQuery, lotsQuery } from "../../api/queries";
import { day, typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { TakeAway } from "../../parts/TakeAway";
import { Button } from "../../ui/Button";
import { Choice, Option } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { Pop } from "../../ui/Pop";
import { Failed, Waiting } from "../../ui/State";
import { Tick } from "../../ui/Tick";
import { useDraft } from "../../ui/useDraft";

type Lot = Schemas["LotOut"];
type Kind = Lot["kind"];

type KindOfLot = Schemas["LotKindOut"];

/** Every delivery with what was taken of it by the runs, and what is left. */
export function Lots() {
  const lots = useQuery(lotsQuery);
  const kinds = useQuery(lotKindsQuery);
  if (lots.isPending || kinds.isPending) return <Waiting what="the lots" />;
  if (lots.isError) return <Failed error={lots.error} onRetry={() => void lots.refetch()} />;
  if (kinds.isError) return <Failed error={kinds.error} onRetry={() => void kinds.refetch()} />;
  const here = lots.data.filter((lot) => !lot.archived);
  const away = lots.data.filter((lot) => lot.archived);
  return (
    <div className="grid gap-x-12 gap-y-8 pt-4 bench:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <section aria-label="Lots">
        <h2 className="text-lead font-bold">On hand</h2>
        {here.length ? null : (
          <p className="mt-1 text-ink-2">
            Enter what you bought; runs then subtract what they use.
          </p>
        )}
        <ul className="mt-1">
          {here.map((lot) => (
            <OneLot key={lot.id} lot={lot} />
          ))}
        </ul>
        {away.length ? (
          <details className="mt-4">
            <summary className="min-h-11 cursor-pointer font-semibold">
              Used up ({away.length})
            </summary>
            <ul>
              {away.map((lot) => (
                <OneLot key={lot.id} lot={lot} />
              ))}
            </ul>
          </details>
        ) : null}
      </section>
      <NewLot kinds={kinds.data} />
    </div>
  );
}

function OneLot({ lot }: { lot: Lot }) {
  const [open, setOpen] = useState(false);
  const [id, setId] = useState(newId);
  const [amount, setAmount] = useState("");
  const [reason, setReason] = useState("");
  const correct = useChange(
    (sent: Schemas["CorrectionBody"]) => putCorrection(lot.id, id, sent),
    () => {
      setOpen(false);
      setId(newId());
      setAmount("");
      setReason("");
    },
  );
  const archive = useChange((archived: boolean) => putLotAway(lot.id, archived));
  const refused = correct.error instanceof Refused ? correct.error : null;
  const read = typedNumber(amount);
  const bought = lot.bought_amount;
  const left = lot.left === null || !bought ? null : Math.max(0, Math.min(1, lot.left / bought));
  return (
    <li className="border-b border-line py-3">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <b className="text-lead">{lot.name}</b>
        <span className="text-note text-ink-2">{about(lot)}</span>
        <span className={`ml-auto font-bold ${lot.is_low ? "text-rust" : ""}`}>
          {lot.left === null
            ? "amount not named"
            : `${amountOf(Math.max(lot.left, 0))} ${lot.unit} left`}
          {lot.is_low ? ", low" : ""}
        </span>
      </div>
      {left === null ? null : (
        <svg width="100%" height="10" aria-hidden="true" className="mt-1.5 block">
          <rect width="100%" height="10" fill="none" stroke="var(--line)" />
          <rect
            width={`${100 * left}%`}
            height="10"
            fill={lot.is_low ? "var(--rust)" : "var(--hemp)"}
          />
        </svg>
      )}
      <div className="mt-1 flex flex-wrap items-center gap-x-4 text-note text-ink-2">
        <span>
          {lot.runs
            ? `${amountOf(lot.used)} ${lot.unit} by ${lot.runs} ${lot.runs === 1 ? "run" : "runs"}`
            : "no run has used it yet"}
        </span>
        {lot.corrections.map((c) => (
          <span key={c.made_utc + c.reason}>
            {c.amount > 0 ? "" : "less by "}
            {amountOf(Math.abs(c.amount))} {lot.unit}: {c.reason}
          </span>
        ))}
        <span className="ml-auto flex gap-4">
          <Pop
            open={open}
            onOpenChange={setOpen}
            trigger={
              <button type="button" className="min-h-9 cursor-pointer underline underline-offset-4">
                Correct the stock
              </button>
            }
          >
            <form
              noValidate
              className="flex flex-col gap-3 text-ink"
              onSubmit={(e: FormEvent) => {
                e.preventDefault();
                if (typeof read === "number") correct.mutate({ amount: read, reason });
              }}
            >
              <Field
                label="Other use"
                unit={lot.unit}
                inputMode="decimal"
                value={amount}
                onChange={(e) => setAmount(e.target.value)}
                error={read === undefined ? `“${amount}” is not a number` : refused?.at("amount")}
                hint="negative if more is left than shown"
              />
              <Field
                label="Why"
                value={reason}
                onChange={(e) => setReason(e.target.value)}
                error={refused?.at("reason")}
              />
              <Button kind="next" type="submit">
                Save
              </Button>
            </form>
          </Pop>
          <button
            type="button"
            className="min-h-9 cursor-pointer underline underline-offset-4"
            onClick={() => archive.mutate(!lot.archived)}
          >
            {lot.archived ? "Restore" : "Archive"}
          </button>
          <TakeAway kind="lot" ownerId={lot.id}>
            Delete
          </TakeAway>
          {archive.error ? (
            <span role="alert" className="text-rust">
              {archive.error.message}
            </span>
          ) : null}
        </span>
      </div>
    </li>
  );
}

const amountOf = (n: number) => n.toFixed(n < 10 ? 1 : 0);

function about(lot: Lot): string {
  return [
    lot.about,
    lot.bought_on ? `bought ${day(lot.bought_on)}` : "",
    lot.price === null ? "" : `${lot.price} ${lot.currency}`,
  ]
    .filter(Boolean)
    .join(", ");
}

const BLANK = {
  kind: "rope" as Kind,
  name: "",
  unit: "m",
  amount: "",
  on: "",
  price: "",
  currency: "kr",
  details: {} as Record<string, string>,
  damp: false,
  humidity: "",
  direction: "",
  avoided: "",
  note: "",
};

function NewLot({ kinds }: { kinds: KindOfLot[] }) {
  const [id, setId] = useState(newId);
  const [typed, setTyped, drop] = useDraft("new-lot", BLANK);
  const kind = kinds.find((each) => each.kind === typed.kind) ?? (kinds[0] as KindOfLot);
  const save = useChange(putLot, () => {
    drop();
    setId(newId());
  });
  const refused = save.error instanceof Refused ? save.error : null;
  const numbers = {
    amount: typedNumber(typed.amount),
    price: typedNumber(typed.price),
    humidity: typedNumber(typed.humidity),
  };
  const wrong = (name: keyof typeof numbers) =>
    numbers[name] === undefined ? `“${typed[name]}” is not a number` : undefined;
  const set = (part: Partial<typeof BLANK>) => setTyped({ ...typed, ...part });
  const field = (
    name: "name" | "amount" | "on" | "price" | "currency" | "humidity" | "direction" | "avoided",
  ) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => set({ [name]: e.target.value }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (Object.values(numbers).includes(undefined)) return;
    const details = Object.fromEntries(
      kind.details.flatMap(({ name, unit }) => {
        const text = typed.details[name]?.trim();
        if (!text) return [];
        return [[name, unit === null ? text : (typedNumber(text) ?? text)]];
      }),
    );
    save.mutate({
      id,
      kind: typed.kind,
      name: typed.name,
      unit: kind.units.includes(typed.unit) ? typed.unit : (kind.units[0] ?? "m"),
      bought_amount: numbers.amount ?? null,
      bought_on: typed.on,
      price: numbers.price ?? null,
      currency: typed.currency,
      details,
      state: {
        damp: typed.damp,
        humidity_percent: numbers.humidity ?? null,
        direction: typed.direction,
        avoided: typed.avoided,
      },
      note: typed.note,
    });
  };
  return (
    <section aria-label="New lot">
      <h2 className="text-lead font-bold">New lot</h2>
      <form onSubmit={submit} noValidate className="mt-2 grid grid-cols-2 gap-3">
        <Choice
          label="What"
          value={typed.kind}
          onPick={(picked) => set({ kind: picked as Kind, details: {} })}
        >
          {kinds.map((each) => (
            <Option key={each.kind} value={each.kind}>
              {each.label}
            </Option>
          ))}
        </Choice>
        <Field
          label="Name of the lot"
          {...field("name")}
          error={refused?.at("name")}
          placeholder="hemp, lot 8"
        />
        <Field
          label="Bought"
          unit={kind.units.length === 1 ? (kind.units[0] ?? "") : ""}
          inputMode="decimal"
          {...field("amount")}
          error={wrong("amount") ?? refused?.at("bought_amount")}
        />
        {kind.units.length > 1 ? (
          <Choice
            label="in"
            value={typed.unit}
            onPick={(picked) => set({ unit: picked })}
            error={refused?.at("unit")}
          >
            {kind.units.map((unit) => (
              <Option key={unit} value={unit}>
                {unit}
              </Option>
            ))}
          </Choice>
        ) : (
          <DayField label="Bought on" {...field("on")} error={refused?.at("bought_on")} />
        )}
        <Field
          label="Price of it all"
          inputMode="decimal"
          {...field("price")}
          error={wrong("price") ?? refused?.at("price")}
        />
        <Field label="Currency" {...field("currency")} />
        {kind.details.map(({ name, label, unit }) => (
          <Field
            key={name}
            label={label}
            unit={unit ?? ""}
            value={typed.details[name] ?? ""}
            onChange={(e) => set({ details: { ...typed.details, [name]: e.target.value } })}
          />
        ))}
        {kind.takes_up_damp ? (
          <>
            <Field
              label="Humidity, if known"
              unit="%"
              inputMode="decimal"
              {...field("humidity")}
              error={wrong("humidity")}
            />
            <Field
              label="Direction of cut"
              {...field("direction")}
              placeholder="across the flutes"
            />
            <Field label="Avoided" {...field("avoided")} placeholder="seams and tape" />
            <div className="self-end">
              <Tick label="damp" checked={typed.damp} onTick={(on) => set({ damp: on })} />
            </div>
          </>
        ) : null}
        <LongField
          className="col-span-2"
          label="Note"
          value={typed.note}
          onChange={(e) => set({ note: e.target.value })}
        />
        {save.error && !refused?.problem.field ? (
          <p className="col-span-2 text-rust">{save.error.message}</p>
        ) : null}
        <Button kind="next" type="submit" className="justify-self-start" disabled={save.isPending}>
          Add to shelf
        </Button>
      </form>
    </section>
  );
}
