import type { Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { CellChoice, Options } from "../../ui/Choice";
import type { Draft } from "./soak";

const CELL = "min-h-11 w-full rounded-edge border border-line bg-sheet px-2";
const SAID = [
  ["arm", "arm"],
  ["oil", "oil"],
  ["coating", "coating"],
  ["flat_finish", "flat finish"],
  ["degreased_with", "degreased with"],
  ["polished_before", "polished before"],
  ["exposed_before", "exposed before"],
] as const;

/** What is put in: a blade or a piece of steel a row, with what matters to rust. */
export function CouponRows({
  coupons,
  blades,
  error,
  onChange,
}: {
  coupons: readonly Draft[];
  blades: ReadonlyArray<Schemas["BladeOut"]>;
  error: string | undefined;
  onChange: (coupons: readonly Draft[]) => void;
}) {
  const change = (id: string, part: Partial<Draft>) =>
    onChange(coupons.map((coupon) => (coupon.id === id ? { ...coupon, ...part } : coupon)));
  const add = (part: Partial<Draft>) => {
    const last = coupons.at(-1);
    onChange([
      ...coupons,
      {
        flat_finish: last?.flat_finish ?? "",
        degreased_with: last?.degreased_with ?? "",
        name: "",
        ...part,
        id: newId(),
      },
    ]);
  };
  const here = blades.filter(
    (blade) => !blade.archived_utc && !coupons.some((c) => c.blade_id === blade.id),
  );
  return (
    <fieldset className="min-w-0 bench:col-span-6">
      <legend className="text-note font-medium text-ink-2">
        Coupons; one of them is the baseline that must rust
      </legend>
      {error ? (
        <p role="alert" className="text-note font-medium text-rust">
          {error}
        </p>
      ) : null}
      {coupons.length ? (
        <div className="overflow-x-auto">
          <table className="w-full min-w-[960px] border-collapse">
            <thead>
              <tr className="text-left text-note text-ink-2">
                <th className="font-medium">name</th>
                <th className="font-medium">side</th>
                <th className="font-medium">role</th>
                {SAID.map(([name, label]) => (
                  <th key={name} className="font-medium">
                    {label}
                  </th>
                ))}
                <th>
                  <span className="sr-only">delete</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {coupons.map((coupon, place) => (
                <tr key={coupon.id}>
                  <td className="min-w-24 pr-1">
                    <input
                      aria-label={`Name of coupon ${place + 1}`}
                      className={CELL}
                      value={coupon.name}
                      onChange={(e) => change(coupon.id, { name: e.target.value })}
                    />
                  </td>
                  <td className="pr-1">
                    <CellChoice
                      says={`Side of coupon ${place + 1}`}
                      value={coupon.side ?? "both"}
                      onPick={(v) => change(coupon.id, { side: v as Draft["side"] })}
                    >
                      <Options of={WORDS.sides} />
                    </CellChoice>
                  </td>
                  <td className="pr-1">
                    <CellChoice
                      says={`Role of coupon ${place + 1}`}
                      value={coupon.role ?? ""}
                      onPick={(v) => change(coupon.id, { role: v as Draft["role"] })}
                    >
                      <Options of={WORDS.couponRoles} />
                    </CellChoice>
                  </td>
                  {SAID.map(([name, label]) => (
                    <td key={name} className="min-w-24 pr-1">
                      <input
                        aria-label={`${label} of coupon ${place + 1}`}
                        className={CELL}
                        value={coupon[name] ?? ""}
                        onChange={(e) => change(coupon.id, { [name]: e.target.value })}
                      />
                    </td>
                  ))}
                  <td>
                    <Button
                      kind="quiet"
                      aria-label={`Delete coupon ${place + 1}`}
                      onClick={() => onChange(coupons.filter((c) => c.id !== coupon.id))}
                    >
                      out
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
      <div className="mt-2 flex flex-wrap gap-2">
        {here.map((blade) => (
          <Button key={blade.id} onClick={() => add({ name: blade.code, blade_id: blade.id })}>
            {blade.code}
          </Button>
        ))}
        <Button onClick={() => add({ name: `coupon ${coupons.length + 1}` })}>
          A piece of steel
        </Button>
        {coupons.length ? (
          <Button
            kind="quiet"
            onClick={() => onChange(coupons.flatMap((c) => (c.side === "both" ? halves(c) : [c])))}
          >
            Each side by itself
          </Button>
        ) : null}
      </div>
    </fieldset>
  );
}

/** The two sides of a coupon as coupons of their own, to be prepared differently. */
function halves(coupon: Draft): Draft[] {
  return (["left", "right"] as const).map((side) => ({ ...coupon, side, id: newId() }));
}
