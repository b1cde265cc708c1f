import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { shelfQuery, soakMethodsQuery } from "../../api/queries";
import { patchSoak, putSoak } from "../../api/soaks";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { Choice, Option } from "../../ui/Choice";
import { Field, LongField } from "../../ui/Field";
import { CouponRows } from "./CouponRows";
import { type Coupon, type Draft, FACTORS, type Soak } from "./soak";

type Method = Schemas["SoakMethodBody"];

/** What is asked, under which method, of which coupons. */
export function SoakForm({ soak, onDone }: { soak: Soak | undefined; onDone: () => void }) {
  const methods = useQuery(soakMethodsQuery);
  const shelf = useQuery(shelfQuery);
  const navigate = useNavigate();
  const [id] = useState(() => soak?.id ?? newId());
  const [said, setSaid] = useState({
    name: soak?.name ?? "",
    question: soak?.question ?? "",
    salt: soak?.salt ?? "",
    water: soak?.water ?? "",
    note: soak?.note ?? "",
  });
  const [factor, setFactor] = useState<Soak["factor"]>(soak?.factor ?? "steel");
  const [picked, setPicked] = useState<Method | undefined>(soak?.how);
  const [typed, setTyped] = useState({ hours: "", look_h: "", needed: "" });
  const [coupons, setCoupons] = useState<readonly Draft[]>(soak?.coupons.map(draft) ?? []);
  const save = useChange(
    (body: Schemas["SoakBody"]) => (soak ? patchSoak(id, body) : putSoak(id, body)),
    () => {
      onDone();
      if (!soak) navigate(`/soak/${id}`);
    },
  );
  const refused = save.error instanceof Refused ? save.error : null;
  const method = picked ?? methods.data?.[0];
  const whole = { ...method, ...changed(typed) } as Method;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!method) return;
    save.mutate({ ...said, factor, method: whole, coupons: [...coupons] });
  };
  const field = (name: keyof typeof said) => ({
    value: said[name],
    onChange: (e: { target: { value: string } }) => setSaid({ ...said, [name]: e.target.value }),
    error: refused?.at(name),
  });
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-1 gap-3 bench:grid-cols-6">
      <Field label="Name" className="bench:col-span-2" {...field("name")} />
      <Field
        label="The question, in one sentence"
        className="bench:col-span-4"
        {...field("question")}
      />
      <Choice
        label="What varies"
        className="bench:col-span-2"
        value={factor}
        onPick={(v) => setFactor(v as Soak["factor"])}
      >
        {FACTORS.map(([value, name]) => (
          <Option key={value} value={value}>
            {name}
          </Option>
        ))}
      </Choice>
      <Choice
        label="Method"
        className="bench:col-span-2"
        value={method?.key}
        error={refused?.at("method")}
        onPick={(key) => {
          setPicked(methods.data?.find((m) => m.key === key));
          setTyped({ hours: "", look_h: "", needed: "" });
        }}
      >
        {(methods.data ?? []).map((m) => (
          <Option key={m.key} value={m.key}>
            {m.name}
          </Option>
        ))}
      </Choice>
      <Field
        label="Lasts"
        unit="h"
        inputMode="decimal"
        value={typed.hours || String(method?.hours ?? "")}
        onChange={(e) => setTyped({ ...typed, hours: e.target.value })}
        error={refused?.at("hours") ?? notNumber(typed.hours)}
      />
      <Field
        label="Looks at"
        unit="h"
        value={typed.look_h || (method?.look_h ?? []).join(" ")}
        onChange={(e) => setTyped({ ...typed, look_h: e.target.value })}
        error={refused?.at("look_h")}
      />
      {method ? (
        <p className="text-note text-ink-2 bench:col-span-6">
          {[method.medium, ...(method.steps ?? []), ...(method.cautions ?? [])].join(" · ")}
          {` (${method.source})`}
        </p>
      ) : null}
      <Field label="Salt" className="bench:col-span-2" {...field("salt")} />
      <Field label="Water" className="bench:col-span-2" {...field("water")} />
      <Field
        label="Baseline must come down to grade"
        hint="ISO 10289, 10 is clean"
        inputMode="numeric"
        className="bench:col-span-2"
        value={typed.needed || String(method?.needed_grade ?? 6)}
        onChange={(e) => setTyped({ ...typed, needed: e.target.value })}
        error={refused?.at("needed_grade")}
      />
      <CouponRows
        coupons={coupons}
        blades={shelf.data?.blades.map(({ blade }) => blade) ?? []}
        error={refused?.at("coupons")}
        onChange={setCoupons}
      />
      <LongField label="Note" className="bench:col-span-6" {...field("note")} />
      {save.error && !shown(refused) ? (
        <p role="alert" className="text-rust bench:col-span-6">
          {save.error.message}
        </p>
      ) : null}
      <span className="bench:col-span-6">
        <Button kind="next" type="submit" disabled={save.isPending}>
          {soak ? "Keep the changes" : "Keep the soak"}
        </Button>
      </span>
    </form>
  );
}

const AT_FIELDS = ["name", "question", "method", "hours", "look_h", "needed_grade", "coupons"];
const shown = (refused: Refused | null) =>
  refused !== null && AT_FIELDS.includes(refused.problem.field ?? "");

function notNumber(text: string): string | undefined {
  return typedNumber(text) === undefined ? `“${text}” is not a number` : undefined;
}

/** What was typed over the method's own. */
function changed(typed: { hours: string; look_h: string; needed: string }): Partial<Method> {
  const found: Partial<Method> = {};
  const hours = typedNumber(typed.hours);
  if (hours) found.hours = hours;
  const looks = typed.look_h.split(/[\s;]+/).flatMap((text) => typedNumber(text) ?? []);
  if (typed.look_h.trim()) found.look_h = looks;
  const needed = typedNumber(typed.needed);
  if (needed !== null && needed !== undefined) found.needed_grade = Math.round(needed);
  return found;
}

function draft(coupon: Coupon): Draft {
  const { called: _called, steel: _steel, mark: _mark, ...kept } = coupon;
  return kept;
}
