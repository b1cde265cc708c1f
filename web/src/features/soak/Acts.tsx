import { useChange } from "../../api/changes";
import { strikeAct } from "../../api/soaks";
import { Button } from "../../ui/Button";
import { Heading } from "../../ui/Section";
import type { Soak } from "./soak";

/** Interventions, each at its true hour; an entry can be excluded and included again. */
export function Acts({ soak, onAdd }: { soak: Soak; onAdd: () => void }) {
  const strike = useChange(({ id, reason }: { id: string; reason: string }) =>
    strikeAct(soak.id, id, reason),
  );
  const names = new Map(soak.coupons.map((coupon) => [coupon.id, coupon.called]));
  return (
    <section aria-label="Interventions" className="mt-8 border-t-[1.5px] border-ink pt-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <Heading>Interventions</Heading>
        <Button onClick={onAdd}>Add intervention</Button>
      </div>
      <ul className="mt-2 columns-1 gap-x-10 bench:columns-2">
        {soak.acts.map((act) => (
          <li
            key={act.id}
            className="flex break-inside-avoid items-center justify-between gap-3 border-t
              border-line py-1"
          >
            <span className={act.struck ? "text-ink-2 line-through" : ""}>
              <span className="mr-3 inline-block min-w-14 text-note text-ink-2">
                {act.exposure_h.toFixed(1)} h
              </span>
              {[names.get(act.coupon_id), act.says].filter(Boolean).join(": ")}
            </span>
            <Button
              kind="quiet"
              onClick={() => strike.mutate({ id: act.id, reason: act.struck ? "" : "was not so" })}
            >
              {act.struck ? "Include again" : "Exclude"}
            </Button>
          </li>
        ))}
      </ul>
      {soak.acts.length === 0 ? <p className="text-ink-2">Nothing yet.</p> : null}
    </section>
  );
}
