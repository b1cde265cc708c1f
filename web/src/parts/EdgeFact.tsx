import { useState } from "react";
import type { Schemas } from "../api/client";
import { labelOf } from "../domain/words";
import { Pop } from "../ui/Pop";
import { TextButton } from "../ui/TextButton";
import { FactHistory, factWords } from "./FactHistory";
import { MeasureForm } from "./MeasureForm";

/** One fact of an edge, with its earlier values, and one more measurement of it. */
export function EdgeFact({
  bladeId,
  edge,
  quantity,
}: {
  bladeId: string;
  edge: Schemas["EdgeOut"];
  quantity: Schemas["QuantityOut"];
}) {
  const [open, setOpen] = useState(false);
  const inUse = edge.measurements.find((m) => m.quantity === quantity.name && m.in_use);
  const none = quantity.name === "micro_bevel_side_deg" && !inUse && edge.side_angle_deg !== null;
  return (
    <>
      <dt className="self-center text-ink-2">{quantity.label}</dt>
      <dd>
        <Pop
          open={open}
          onOpenChange={setOpen}
          trigger={
            <TextButton
              aria-label={`Measure ${quantity.label} of edge ${edge.number}`}
              className="text-left"
            >
              {none ? "none" : factWords(inUse, quantity)}
              {inUse && inUse.standing !== "measured_here" ? (
                <span className="cond text-note text-ink-2">
                  {" "}
                  {labelOf("standings", inUse.standing)}
                </span>
              ) : null}
            </TextButton>
          }
        >
          <MeasureForm
            bladeId={bladeId}
            edgeId={edge.id}
            quantity={quantity}
            label={`Edge ${edge.number}: ${quantity.label}`}
            onDone={() => setOpen(false)}
          />
          <div className="mt-4">
            <FactHistory measurements={edge.measurements} quantity={quantity} />
          </div>
        </Pop>
      </dd>
    </>
  );
}
