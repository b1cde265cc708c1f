import { useState } from "react";
import type { Schemas } from "../../api/client";
import { HardnessMap } from "../../charts/HardnessMap";
import { labelOf } from "../../domain/words";
import { FactHistory, factWords } from "../../parts/FactHistory";
import { MeasureForm } from "../../parts/MeasureForm";
import { Pop } from "../../ui/Pop";
import { Section } from "../../ui/Section";

/**
 * The measurable facts of a blade: the value in use, how it is known, and every other value behind
 * it.
 */
export function Facts({
  page,
  quantities,
}: {
  page: Schemas["BladePageOut"];
  quantities: Schemas["QuantityOut"][];
}) {
  const { blade } = page;
  return (
    <Section title="Measurements">
      <table className="mt-2 w-full border-collapse">
        <thead className="sr-only">
          <tr>
            <th>fact</th>
            <th>value</th>
            <th>how it is known</th>
          </tr>
        </thead>
        <tbody>
          {quantities
            .filter((q) => q.of === "blade")
            .map((q) => (
              <Fact key={q.name} blade={blade} quantity={q} usual={page.usual_hardness_hrc} />
            ))}
        </tbody>
      </table>
    </Section>
  );
}

function Fact({
  blade,
  quantity,
  usual,
}: {
  blade: Schemas["BladeOut"];
  quantity: Schemas["QuantityOut"];
  usual: Schemas["BladePageOut"]["usual_hardness_hrc"];
}) {
  const [open, setOpen] = useState(false);
  const own = blade.measurements.filter((m) => m.quantity === quantity.name);
  const inUse = own.find((m) => m.in_use);
  const warnings = inUse?.hardness?.warnings ?? [];
  const pending = quantity.name === "hardness_hrc" && !inUse?.standing.startsWith("measured");
  return (
    <tr className="border-b border-line align-middle">
      <th scope="row" className="py-1 pr-4 text-left font-normal text-ink-2">
        {quantity.label}
      </th>
      <td className={pending ? "ruled" : ""}>
        <Pop
          open={open}
          onOpenChange={setOpen}
          trigger={
            <button
              type="button"
              aria-label={`Measure ${quantity.label}`}
              className={`min-h-11 cursor-pointer text-left underline decoration-line
                underline-offset-4 hover:decoration-ink ${inUse ? "font-semibold" : "text-ink-2"}`}
            >
              {factWords(inUse, quantity)}
            </button>
          }
        >
          <MeasureForm
            bladeId={blade.id}
            quantity={quantity}
            label={`${quantity.label} of ${blade.code}`}
            onDone={() => setOpen(false)}
          />
          {own.length ? (
            <div className="mt-4">
              <FactHistory measurements={own} quantity={quantity} />
            </div>
          ) : null}
        </Pop>
      </td>
      <td className="py-1 pl-4 text-note text-ink-2">
        <span className="block">
          {inUse ? labelOf("standings", inUse.standing) : ""}
          {inUse?.hardness
            ? `, ${inUse.hardness.used.length} readings, ${inUse.hardness.low_hrc.toFixed(1)} ` +
              `to ${inUse.hardness.high_hrc.toFixed(1)}`
            : ""}
          {own.length > 1 ? `; ${own.length} values stored` : ""}
        </span>
        {quantity.name === "hardness_hrc" && usual ? (
          <span className="block">
            its grade is usually {usual[0]} to {usual[1]} HRC
          </span>
        ) : null}
        {inUse?.details.places_mm?.length ? (
          <HardnessMap
            places={inUse.details.places_mm}
            readings={(inUse.details.readings ?? []).map(
              (hrc) => hrc + (inUse.hardness?.correction_hrc ?? 0),
            )}
            lengthMm={blade.edge_length_mm}
            width={300}
          />
        ) : null}
        {warnings.map((w) => (
          <span key={w} className="block border-l-4 border-glint pl-2">
            {w}
          </span>
        ))}
      </td>
    </tr>
  );
}
