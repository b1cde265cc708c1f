import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { shelfQuery, soakMethodsQuery } from "../../api/queries";
import { patchSoak, putSoak } from "../../api/soaks";
import { newId } from "../../domain/ids";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field, LongField } from "../../ui/Field";
import { CouponRows } from "./CouponRows";
import { MethodEditor } from "./MethodEditor";
import type { Coupon, Draft, Soak } from "./soak";
import { type Method, readMethod, type TypedMethod, typedMethod, unread } from "./typedMethod";

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
  const [changed, setChanged] = useState<TypedMethod>();
  const [isOpen, setOpen] = useState(false);
  const [asked, setAsked] = useState(false);
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
  const typed = changed ?? (method ? typedMethod(method) : undefined);
  const cannotRead = typed ? unread(typed) : {};
  const wrong = (name: string) => (asked ? cannotRead[name] : undefined) ?? refused?.at(name);
  const set = (part: Partial<TypedMethod>) => (typed ? setChanged({ ...typed, ...part }) : null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setAsked(true);
    if (!method || !typed || Object.keys(cannotRead).length) return;
    const whole = readMethod(method, typed);
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
        <Options of={WORDS.soakFactors} />
      </Choice>
      <Choice
        label="Method"
        className="bench:col-span-2"
        value={method?.key}
        error={refused?.at("method")}
        onPick={(key) => {
          setPicked(methods.data?.find((m) => m.key === key));
          setChanged(undefined);
        }}
      >
        {choices(methods.data ?? [], soak?.how).map((m) => (
          <Option key={m.key} value={m.key}>
            {m.name}
          </Option>
        ))}
      </Choice>
      <Field
        label="Lasts"
        unit="h"
        inputMode="decimal"
        value={typed?.hours ?? ""}
        onChange={(e) => set({ hours: e.target.value })}
        error={wrong("hours")}
      />
      <Field
        label="Looks at"
        unit="h"
        value={typed?.look_h ?? ""}
        onChange={(e) => set({ look_h: e.target.value })}
        error={wrong("look_h")}
      />
      {method && typed ? (
        <div className="bench:col-span-6">
          <p className="text-note text-ink-2">
            {[typed.medium, ...typed.steps.split("\n"), ...(method.cautions ?? [])]
              .filter(Boolean)
              .join(" · ")}
            {` (${method.source})`}
          </p>
          <Button kind="quiet" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
            {isOpen ? "Close the method" : "Edit method"}
          </Button>
        </div>
      ) : null}
      {typed && (isOpen || HIDDEN.some((name) => wrong(name))) ? (
        <div className="bench:col-span-6">
          <MethodEditor typed={typed} wrong={wrong} onChange={setChanged} />
        </div>
      ) : null}
      <Field label="Salt" className="bench:col-span-2" {...field("salt")} />
      <Field label="Water" className="bench:col-span-2" {...field("water")} />
      <Field
        label="Baseline must reach grade"
        hint="ISO 10289, 10 is clean"
        inputMode="numeric"
        className="bench:col-span-2"
        value={typed?.needed_grade ?? ""}
        onChange={(e) => set({ needed_grade: e.target.value })}
        error={wrong("needed_grade")}
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
          {soak ? "Save changes" : "Save soak"}
        </Button>
      </span>
    </form>
  );
}

const HIDDEN = ["method.name", "salt_percent", "stages", "tending"];
const AT_FIELDS = [
  "name",
  "question",
  "method",
  "hours",
  "look_h",
  "needed_grade",
  "coupons",
  ...HIDDEN,
];
const shown = (refused: Refused | null) =>
  refused !== null && AT_FIELDS.includes(refused.problem.field ?? "");

/** The methods on offer; one that a soak uses already stands first. */
function choices(offered: readonly Method[], own: Method | undefined): readonly Method[] {
  const isThere = !own || offered.some((method) => method.key === own.key);
  return own && !isThere ? [own, ...offered] : offered;
}

function draft(coupon: Coupon): Draft {
  const { called: _called, steel: _steel, mark: _mark, ...kept } = coupon;
  return kept;
}
