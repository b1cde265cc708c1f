import { WORDS } from "../../domain/words";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import type { MethodDraft } from "./draft";
import { cellOf, type PartProps, textOf } from "./fields";
import { Part } from "./Part";
import { Rows } from "./Rows";

/** What is cut, on what, and how it is counted. */
export function CutPart(props: PartProps) {
  const { draft: d, onChange, at } = props;
  const set = (part: Partial<MethodDraft>) => onChange({ ...d, ...part });
  return (
    <Part title="Medium and cut">
      <div className="grid grid-cols-2 gap-3 bench:grid-cols-4">
        <Field
          className="col-span-2"
          label="Name of the method"
          {...textOf(props, "name")}
          error={at("name")}
        />
        <Choice
          label="Medium"
          value={d.medium}
          onPick={(picked) => set({ medium: picked as MethodDraft["medium"] })}
        >
          <Options of={WORDS.media} />
        </Choice>
        <Choice
          label="Kind of cut"
          value={d.cut}
          onPick={(picked) => set({ cut: picked as MethodDraft["cut"] })}
        >
          <Options of={WORDS.cuts} />
        </Choice>
        <Field label="Surface under the cut" {...textOf(props, "surface")} />
        <Choice
          label="Counted in"
          value={d.unit}
          onPick={(picked) => set({ unit: picked as MethodDraft["unit"] })}
        >
          <Options of={WORDS.countUnits} />
        </Choice>
        <Field
          label="One tap counts"
          unit={d.unit}
          inputMode="decimal"
          {...textOf(props, "piece")}
          error={at("piece")}
        />
        <Field
          label="Contact length of a cut"
          unit="mm"
          inputMode="decimal"
          {...textOf(props, "contact")}
          error={at("contact_mm")}
        />
        <Field
          label="Length of edge used"
          unit="mm"
          inputMode="decimal"
          {...textOf(props, "zone")}
          error={at("zone_length_mm")}
          hint="empty: as the run's zone says"
        />
        <Field
          className="col-span-2"
          label="Stations the edge is read at"
          unit="mm from the heel"
          {...textOf(props, "stations")}
          error={at("stations_mm")}
          hint="such as 20, 44, 68; outside the zone they are controls"
        />
      </div>
      {d.medium === "mixed" ? <Recipe {...props} /> : null}
    </Part>
  );
}

/** The media of a written recipe, in their order. */
function Recipe({ draft: d, onChange, at }: PartProps) {
  return (
    <Rows
      title="Recipe"
      error={at("recipe")}
      rows={d.recipe}
      blank={{ medium: "", amount: "", unit: "" }}
      add="Add a medium"
      onChange={(recipe) => onChange({ ...d, recipe })}
    >
      {(part, change) => (
        <>
          <Field label="Medium" {...cellOf(part, change, "medium")} />
          <Field label="Amount" inputMode="decimal" {...cellOf(part, change, "amount")} />
          <Field label="Counted in" placeholder={d.unit} {...cellOf(part, change, "unit")} />
        </>
      )}
    </Rows>
  );
}
