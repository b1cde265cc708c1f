import type { Schemas } from "../../api/client";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { CellError, CellField } from "../../ui/CellField";
import { CellChoice, Options } from "../../ui/Choice";
import { Table, unseen } from "../../ui/Table";
import { type CouponRowsForm, halves, nextCoupon, type TypedCoupon } from "./soakForm";

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
  rows,
  blades,
  error,
}: {
  rows: CouponRowsForm;
  blades: ReadonlyArray<Schemas["BladeOut"]>;
  error: string | undefined;
}) {
  const coupons = rows.rows;
  const add = (part: Partial<TypedCoupon>) => rows.add(nextCoupon(coupons, part));
  const here = blades.filter(
    (blade) => !blade.archived_utc && !coupons.some((c) => c.blade_id === blade.id),
  );
  return (
    <fieldset className="min-w-0 bench:col-span-6">
      <legend className="text-note font-medium text-ink-2">
        Coupons; one of them is the baseline that must rust
      </legend>
      <CellError says={error} />
      {coupons.length ? (
        <div className="overflow-x-auto">
          <Table
            heads={["name", "side", "role", ...SAID.map(([, label]) => label), unseen("delete")]}
            cell=""
            className="w-full min-w-[960px]"
          >
            {coupons.map((coupon, place) => (
              <tr key={coupon.id}>
                <td className="min-w-24 pr-1">
                  <CellField says={`Name of coupon ${place + 1}`} {...rows.cell(coupon, "name")} />
                </td>
                <td className="pr-1">
                  <CellChoice says={`Side of coupon ${place + 1}`} {...rows.choice(coupon, "side")}>
                    <Options of={WORDS.sides} />
                  </CellChoice>
                </td>
                <td className="pr-1">
                  <CellChoice says={`Role of coupon ${place + 1}`} {...rows.choice(coupon, "role")}>
                    <Options of={WORDS.couponRoles} />
                  </CellChoice>
                </td>
                {SAID.map(([name, label]) => (
                  <td key={name} className="min-w-24 pr-1">
                    <CellField
                      says={`${label} of coupon ${place + 1}`}
                      {...rows.cell(coupon, name)}
                    />
                  </td>
                ))}
                <td>
                  <Button
                    kind="quiet"
                    aria-label={`Delete coupon ${place + 1}`}
                    onClick={() => rows.remove(coupon.id)}
                  >
                    delete
                  </Button>
                </td>
              </tr>
            ))}
          </Table>
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
            onClick={() => rows.put(coupons.flatMap((c) => (c.side === "both" ? halves(c) : [c])))}
          >
            Each side by itself
          </Button>
        ) : null}
      </div>
    </fieldset>
  );
}
