import { useState } from "react";
import type { Schemas } from "../../api/client";
import { yesNo } from "../../domain/typed";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { CellError, CellField } from "../../ui/CellField";
import { CellChoice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Table, unseen } from "../../ui/Table";
import { Tick } from "../../ui/Tick";
import { type CouponRowsForm, halves, nextCoupon, type TypedCoupon } from "./soakForm";

const ALWAYS = [
  ["oil", "oil"],
  ["coating", "coating"],
  ["flat_finish", "flat finish"],
  ["degreased_with", "degreased with"],
] as const;
const SELDOM = [
  ["arm", "arm"],
  ["polished_before", "polished before"],
  ["exposed_before", "exposed before"],
] as const;
const WEIGHED = [
  ["mass_before_g", "mass before, g"],
  ["area_cm2", "area, cm²"],
  ["density_g_cm3", "density, g/cm³"],
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
  const [more, setMore] = useState(() => coupons.some((c) => SELDOM.some(([name]) => c[name])));
  const [weighs, setWeighs] = useState(() => coupons.some((c) => WEIGHED.some(([n]) => c[n])));
  const said = [...ALWAYS, ...(more ? SELDOM : []), ...(weighs ? WEIGHED : [])];
  const steelOf = (coupon: TypedCoupon) =>
    blades.find((blade) => blade.id === coupon.blade_id)?.claimed_grade || "not named";
  return (
    <fieldset className="min-w-0 bench:col-span-6">
      <legend className="text-note font-medium text-ink-2">
        Coupons; one of them is the baseline that must rust
      </legend>
      <CellError says={error} />
      {coupons.length ? (
        <div className="overflow-x-auto">
          <Table
            heads={[
              "name",
              "steel",
              "side",
              "role",
              ...said.map(([, label]) => label),
              ...(more ? ["also in other soaks"] : []),
              unseen("delete"),
            ]}
            cell=""
            className={more || weighs ? "w-max min-w-full" : "w-full"}
          >
            {coupons.map((coupon, place) => (
              <tr key={coupon.id}>
                <td className="min-w-20 pr-1">
                  <CellField says={`Name of coupon ${place + 1}`} {...rows.cell(coupon, "name")} />
                </td>
                <td className="min-w-20 pr-1">
                  {coupon.blade_id ? (
                    <span className="text-note text-ink-2">{steelOf(coupon)}</span>
                  ) : (
                    <CellField
                      says={`Steel of coupon ${place + 1}`}
                      {...rows.cell(coupon, "steel")}
                    />
                  )}
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
                {said.map(([name, label]) => (
                  <td key={name} className="min-w-20 pr-1">
                    <CellField
                      says={`${label} of coupon ${place + 1}`}
                      {...rows.cell(coupon, name)}
                    />
                  </td>
                ))}
                {more ? (
                  <td className="min-w-40 pr-1 text-note">
                    {coupon.blade_id ? null : (
                      <Tick
                        label="the same piece"
                        checked={coupon.is_same_piece === "yes"}
                        onTick={(on) => rows.set(coupon.id, { is_same_piece: yesNo(on) })}
                      />
                    )}
                  </td>
                ) : null}
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
      <AddBlades
        blades={blades.filter((b) => !b.archived_utc && !coupons.some((c) => c.blade_id === b.id))}
        onAdd={(blade) => add({ name: blade.code, blade_id: blade.id })}
      />
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => add({ name: `coupon ${coupons.length + 1}` })}>
          Add a piece of steel
        </Button>
        {coupons.length ? (
          <>
            <Button
              kind="quiet"
              onClick={() =>
                rows.put(coupons.flatMap((c) => (c.side === "both" ? halves(c) : [c])))
              }
            >
              Each side by itself
            </Button>
            <Button kind="quiet" onClick={() => setMore(!more)}>
              {more ? "Fewer columns" : "Arm, polishing and exposure before"}
            </Button>
            <Button kind="quiet" onClick={() => setWeighs(!weighs)}>
              {weighs ? "Hide mass, area and density" : "Mass, area and density"}
            </Button>
          </>
        ) : null}
      </div>
    </fieldset>
  );
}

/** Blades of the shelf that are not in yet, with their steel; found by typing where there are many. */
function AddBlades({
  blades,
  onAdd,
}: {
  blades: readonly Schemas["BladeOut"][];
  onAdd: (blade: Schemas["BladeOut"]) => void;
}) {
  const [typed, setTyped] = useState("");
  const wanted = typed.trim().toLowerCase();
  const found = blades.filter((blade) =>
    `${blade.code} ${blade.claimed_grade ?? ""}`.toLowerCase().includes(wanted),
  );
  return (
    <>
      {blades.length > SHOWN ? (
        <Field
          label="Find a blade, by code or steel"
          className="mt-2 max-w-80"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
      ) : null}
      <div className="mt-2 flex flex-wrap gap-2">
        {found.slice(0, SHOWN).map((blade) => (
          <Button key={blade.id} onClick={() => onAdd(blade)}>
            {blade.code} <span className="font-normal text-ink-2">{blade.claimed_grade}</span>
          </Button>
        ))}
        {found.length > SHOWN ? (
          <span className="self-center text-note text-ink-2">
            and {found.length - SHOWN} more: type to find them
          </span>
        ) : null}
        {wanted && found.length === 0 ? (
          <span className="self-center text-note text-ink-2">No matches.</span>
        ) : null}
      </div>
    </>
  );
}

const SHOWN = 12;
