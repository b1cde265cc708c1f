import type { Schemas } from "../../api/client";
import { Field, LongField } from "../../ui/Field";
import { Fold } from "../../ui/Fold";
import { type ReadLine, readLines } from "./typed";

export interface TypedAlloy {
  readonly alloy: string;
  readonly certificate: string;
  readonly shot: string;
}

type Sent = NonNullable<Schemas["BatchBody"]["reference"]>;

const line = (element: string, percent: number, plusMinus: number | null | undefined) =>
  [element, percent, plusMinus].filter((part) => part !== null && part !== undefined).join(" ");

/** A reference alloy as its fields show it. */
export const alloyTyped = (kept: Sent | null | undefined): TypedAlloy => ({
  alloy: kept?.alloy ?? "",
  certificate: (kept?.certified ?? [])
    .map((each) => line(each.element, each.percent, each.plus_minus_percent))
    .join("\n"),
  shot: (kept?.readings ?? [])
    .map((each) => line(each.element, each.percent, each.plus_minus_percent))
    .join("\n"),
});

/** The alloy as it is sent, null where none is typed; or what cannot be read. */
export function alloyRead(typed: TypedAlloy): {
  readonly sent: Sent | null;
  readonly wrong: string;
} {
  if (!Object.values(typed).some((text) => text.trim())) return { sent: null, wrong: "" };
  const certified = readLines(typed.certificate);
  const shot = readLines(typed.shot);
  const wrong = [...certified, ...shot].find((each) => each.wrong)?.wrong ?? "";
  return {
    wrong,
    sent: {
      alloy: typed.alloy,
      certified: certified.map(({ element, percent, plusMinus }) => ({
        element,
        percent,
        plus_minus_percent: plusMinus,
      })),
      readings: shot.map(reading),
    },
  };
}

const reading = ({ element, percent, plusMinus, detected }: ReadLine) => ({
  element,
  percent,
  plus_minus_percent: plusMinus,
  detected,
});

/** A shot of a reference alloy before the batch, beside its certificate. */
export function ReferenceAlloy({
  typed,
  onTyped,
  errorAt,
}: {
  typed: TypedAlloy;
  onTyped: (typed: TypedAlloy) => void;
  /** What was refused at a field of the wire, or at one inside of it. */
  errorAt: (field: string) => string | undefined;
}) {
  const { wrong } = alloyRead(typed);
  const cell = (name: keyof TypedAlloy) => ({
    value: typed[name],
    onChange: (event: { target: { value: string } }) =>
      onTyped({ ...typed, [name]: event.target.value }),
  });
  return (
    <Fold title="The analyser, checked on a reference alloy" className="col-span-2">
      <div className="grid grid-cols-2 gap-3">
        <Field
          label="Reference alloy"
          className="col-span-2"
          {...cell("alloy")}
          error={errorAt("reference.alloy")}
        />
        <LongField
          label="Its certificate: symbol, per cent, ±"
          hint="Cr 12.50 0.10"
          rows={6}
          {...cell("certificate")}
          error={errorAt("reference.certified")}
        />
        <LongField
          label="The shot: symbol, per cent, ±"
          hint="Cr 12.31 0.08"
          rows={6}
          {...cell("shot")}
          error={wrong || errorAt("reference.readings")}
        />
      </div>
    </Fold>
  );
}
