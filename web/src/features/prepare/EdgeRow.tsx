import { putEdge, putMeasurement, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { quoted, typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { isThatSo, typedNumbers, typedStations } from "../../domain/quantities";
import { WORDS } from "../../domain/words";
import { CellField } from "../../ui/CellField";
import { CellChoice, Options } from "../../ui/Choice";
import { Mark } from "../../ui/Mark";
import { elsewhere, refusalAt } from "../../ui/refusal";
import { TextButton } from "../../ui/TextButton";
import { useDraft } from "../../ui/useDraft";

type Edge = Schemas["EdgeOut"];
type Quantity = Schemas["QuantityOut"];

/** One edge that waits to be cut: what it measured, kept field by field. */
export function EdgeRow({
  blade,
  edge,
  quantities,
  recipe,
  onOpen,
}: {
  blade: Schemas["BladeOut"];
  edge: Edge;
  quantities: readonly Quantity[];
  recipe: Schemas["RecipeBody"] | undefined;
  onOpen: () => void;
}) {
  const change = useChange((sent: Schemas["EdgeBody"]) => putEdge(blade.id, sent));
  const quantity = (name: string) => quantities.find((q) => q.name === name);
  const departs = recipe && JSON.stringify(recipe.steps) !== JSON.stringify(edge.steps);
  return (
    <tr className="border-b border-line align-top">
      <th scope="row" className="px-1 py-2 text-left">
        <span className="flex min-h-11 items-center gap-2 whitespace-nowrap">
          <Mark mark={blade.mark} />
          {blade.code}
        </span>
      </th>
      <td className="px-1 py-2">
        <span className="flex min-h-11 items-center font-semibold">{edge.number}</span>
        {departs ? (
          <span className="block text-note text-rust">differs from the recipe</span>
        ) : null}
      </td>
      {(
        ["side_angle_deg", "micro_bevel_side_deg", "thickness_behind_edge_mm", "start_gf"] as const
      ).map((name) => {
        const found = quantity(name);
        return found ? (
          <MeasuredCell key={name} blade={blade} edge={edge} quantity={found} />
        ) : (
          <td key={name} />
        );
      })}
      <MinutesCell
        blade={blade}
        edge={edge}
        save={(minutes) => change.mutate({ id: edge.id, minutes })}
        error={change.error}
      />
      <td className="px-1 py-2">
        <CellChoice
          says={`${blade.code}, edge ${edge.number}: burr`}
          value={edge.burr_check}
          onPick={(picked) =>
            change.mutate({ id: edge.id, burr_check: picked as "" | "gone" | "traces" })
          }
        >
          <Options of={WORDS.burrChecks} />
        </CellChoice>
      </td>
      <td className="px-1 py-2">
        <CellChoice
          says={`${blade.code}, edge ${edge.number}: lamp`}
          value={edge.lamp_check}
          onPick={(picked) =>
            change.mutate({
              id: edge.id,
              lamp_check: picked as "" | "nothing glints" | "glints",
            })
          }
        >
          <Options of={WORDS.lampChecks} />
        </CellChoice>
      </td>
      <td className="px-1 py-2">
        <TextButton onClick={onOpen} className="whitespace-nowrap font-semibold">
          Steps and zones
        </TextButton>
      </td>
    </tr>
  );
}

const UNTOUCHED = { text: null };

/** A measured value, kept as one more measurement when the field is left. */
function MeasuredCell({
  blade,
  edge,
  quantity,
}: {
  blade: Schemas["BladeOut"];
  edge: Edge;
  quantity: Quantity;
}) {
  const name = quantity.name as
    | "side_angle_deg"
    | "micro_bevel_side_deg"
    | "thickness_behind_edge_mm"
    | "start_gf";
  const known = edge[name];
  const shown = known === null ? "" : known.toFixed(quantity.decimals);
  const [typed, setTyped, drop] = useDraft<{ text: string | null }>(
    `row:${edge.id}:${name}`,
    UNTOUCHED,
  );
  const text = typed.text ?? shown;
  const save = useChange(
    (made: Schemas["MeasurementBody"]) => putMeasurement(blade.id, made),
    drop,
  );
  const read = readCell(name, text);
  const keep = () => {
    if (!text.trim() || text === shown) return drop();
    if (read.value === undefined) return;
    save.mutate({
      id: newId(),
      quantity: name,
      edge_id: edge.id,
      value: read.value,
      details: read.details,
    });
  };
  const wrong =
    read.value === undefined
      ? `${quoted(text)} cannot be read`
      : (refusalAt(save.error, name) ?? elsewhere(save.error, new Set([name])));
  const isUnknownThickness = name === "thickness_behind_edge_mm" && known === null;
  return (
    <td className="px-1 py-2">
      <CellField
        says={`${blade.code}, edge ${edge.number}: ${quantity.label}`}
        inputMode="decimal"
        className="w-full min-w-20"
        value={text}
        placeholder={name === "micro_bevel_side_deg" ? "0 = none" : ""}
        onChange={(e) => setTyped({ text: e.target.value })}
        onBlur={keep}
        onKeyDown={(e) => (e.key === "Enter" ? e.currentTarget.blur() : undefined)}
        error={wrong}
        ask={isThatSo(typed.text === null ? known : read.value, quantity) ?? undefined}
        hint={isUnknownThickness ? edge.expected_thickness : undefined}
      />
    </td>
  );
}

function readCell(name: string, text: string) {
  const details = { stations: [], readings: [] } as NonNullable<
    Schemas["MeasurementBody"]["details"]
  >;
  if (name === "thickness_behind_edge_mm" && text.includes(":")) {
    const stations = typedStations(text, "mm");
    return stations
      ? { value: null, details: { ...details, stations } }
      : { value: undefined, details };
  }
  if (name === "start_gf" && /\d\s+\d/.test(text.trim())) {
    const readings = typedNumbers(text);
    return readings
      ? { value: null, details: { ...details, readings } }
      : { value: undefined, details };
  }
  return { value: typedNumber(text), details };
}

function MinutesCell({
  blade,
  edge,
  save,
  error,
}: {
  blade: Schemas["BladeOut"];
  edge: Edge;
  save: (minutes: number | null) => void;
  error: Error | null;
}) {
  const [typed, setTyped, , forget] = useDraft(`row:${edge.id}:minutes`, {
    text: edge.minutes?.toString() ?? "",
  });
  const value = typedNumber(typed.text);
  const wrong =
    value === undefined ? `${quoted(typed.text)} is not a number` : refusalAt(error, "minutes");
  return (
    <td className="px-1 py-2">
      <CellField
        says={`${blade.code}, edge ${edge.number}: minutes`}
        inputMode="decimal"
        className="w-full min-w-14"
        value={typed.text}
        onChange={(e) => setTyped({ text: e.target.value })}
        onBlur={() => {
          if (value === undefined || value === edge.minutes) return;
          save(value);
          forget();
        }}
        error={wrong}
      />
    </td>
  );
}
