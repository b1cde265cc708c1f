import { useState } from "react";
import { strikeShot, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Pop } from "../../ui/Pop";
import { Heading } from "../../ui/Section";

type Shot = Schemas["ShotOut"];

/** The shots as they were taken; one that is left out stays, with its reason. */
export function ShotList({ bladeId, shots }: { bladeId: string; shots: readonly Shot[] }) {
  if (shots.length === 0) return null;
  const elements = [...new Set(shots.flatMap((s) => s.readings.map((r) => r.element)))];
  return (
    <section
      aria-label="Shots"
      className="mt-9 overflow-x-auto border-t-[1.5px] border-ink pt-3 pb-8"
    >
      <Heading>Shots</Heading>
      <table className="w-full border-collapse text-note">
        <thead>
          <tr className="border-b border-ink text-left text-ink-2">
            <th className="py-1 pr-3 font-medium">shot</th>
            {elements.map((e) => (
              <th key={e} className="px-2 text-right font-medium">
                {e}
              </th>
            ))}
            <th className="px-2 font-medium">of</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {shots.map((shot) => (
            <tr
              key={shot.id}
              className={`border-b border-line ${shot.struck ? "text-ink-2 line-through" : ""}`}
            >
              <th scope="row" className="py-1 pr-3 text-left whitespace-nowrap">
                {shot.name}
                {shot.surface === "coated" ? " (coating)" : ""}
              </th>
              {elements.map((e) => (
                <td key={e} className="px-2 text-right whitespace-nowrap">
                  {reading(shot, e)}
                </td>
              ))}
              <td className="px-2 no-underline">
                {[shot.on, shot.analyser, shot.operator, shot.struck].filter(Boolean).join(", ")}
              </td>
              <td>
                <Strike bladeId={bladeId} shot={shot} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function reading(shot: Shot, element: string): string {
  const found = shot.readings.find((r) => r.element === element);
  if (!found) return "";
  if (!found.detected) return `< ${found.percent}`;
  return `${found.percent} ± ${found.plus_minus_percent ?? "?"}`;
}

function Strike({ bladeId, shot }: { bladeId: string; shot: Shot }) {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState("");
  const strike = useChange(
    (why: string) => strikeShot(bladeId, shot.id, why),
    () => setOpen(false),
  );
  if (shot.struck)
    return (
      <Button kind="quiet" onClick={() => strike.mutate("")}>
        Include again
      </Button>
    );
  const trigger = <Button kind="quiet">Exclude</Button>;
  return (
    <Pop open={open} onOpenChange={setOpen} trigger={trigger}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          strike.mutate(reason);
        }}
      >
        <Field
          label="Why is it excluded?"
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          error={strike.error?.message}
        />
        <Button kind="next" type="submit" disabled={reason.trim() === ""}>
          Exclude shot {shot.name} out
        </Button>
      </form>
    </Pop>
  );
}
