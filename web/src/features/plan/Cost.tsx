import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";
import { Section } from "../../ui/Section";

type Found = Schemas["TrialPlanOut"];

/**
 * What the plan takes: medium, check material, hours, the hand, and money where prices are known.
 */
export function Cost({ found }: { found: Found }) {
  const { cost, pace, method, needs } = found;
  const unit = method.count_unit ?? "cuts";
  const rows: Array<readonly [string, string, string]> = [
    [
      "still to cut",
      plural(cost.runs, "run"),
      `about ${Math.round(cost.cuts)} ${unit}, ${Math.round(cost.readings)} ` +
        `${cost.tries ? "looks" : "readings"}`,
    ],
  ];
  const of = (use: "medium" | "check") => needs.find((n) => n.use === use);
  const medium = of("medium");
  const check = of("check");
  if (medium) rows.push(fromLot(medium, mediumWhy(found)));
  else if (cost.medium_m > 0)
    rows.push([
      method.medium === "mixed" ? "media" : (method.medium ?? "rope"),
      `${cost.medium_m.toFixed(1)} m`,
      mediumWhy(found),
    ]);
  const each = cost.line_m > 0 ? `${pace.line_mm} mm a reading` : "";
  if (check) rows.push(fromLot(check, each));
  else if (cost.line_m > 0) rows.push(["test line", `${cost.line_m.toFixed(1)} m`, each]);
  if (found.strokes.length)
    rows.push([
      "abrasives",
      plural(cost.runs, "sharpening"),
      `strokes a side: ${found.strokes.map((s) => `${s.strokes} on ${s.abrasive}`).join("; ")}`,
    ]);
  rows.push([
    "time",
    `${cost.hours.toFixed(1)} h`,
    `${cost.sharpening_hours.toFixed(1)} h of it sharpening; ${pace.cut_s} s a cut, ` +
      `${pace.reading_s} s a reading, ` +
      `${found.pace_learned ? "from your own runs" : "usual values"}`,
  ]);
  if (method.cut !== "stroke")
    rows.push(["for the hand", plural(cost.days, "day"), `at ${pace.cuts_a_day} cuts a day`]);
  const prices = total(needs);
  if (prices) rows.push(["money", prices, "by the price of the lots"]);
  return (
    <Section title="Cost">
      <table className="mt-1 w-full border-collapse" data-testid="cost">
        <tbody>
          {rows.map(([name, value, why]) => (
            <tr key={name} className="border-b border-line">
              <th scope="row" className="py-1 pr-3 text-left font-normal text-ink-2">
                {name}
              </th>
              <td className="pr-4 font-bold whitespace-nowrap">{value}</td>
              <td className="text-note text-ink-2">{why}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Section>
  );
}

function fromLot(need: Schemas["StockNeedOut"], why: string): readonly [string, string, string] {
  const left = need.left === null ? "" : `${amount(Math.max(need.left, 0))} ${need.unit} left`;
  return [
    need.lot,
    `${amount(need.needed)} ${need.unit}`,
    [why, left, money(need)].filter(Boolean).join("; "),
  ];
}

const amount = (n: number) => n.toFixed(n < 10 ? 1 : 0);

function mediumWhy({ pace, method }: Found): string {
  if (method.medium === "rope")
    return `${pace.advance_mm} mm a cut and ${pace.offcut_m} m of offcut a run`;
  if (["mm", "m", "in", "ft"].includes(method.count_unit ?? "cuts"))
    return "the length that is counted";
  return `${method.contact_mm ?? 300} mm a cut`;
}

function money(need: Schemas["StockNeedOut"]): string {
  return need.price === null ? "" : `${need.price.toFixed(0)} ${need.currency}`.trim();
}

function total(needs: Found["needs"]): string {
  const sums = new Map<string, number>();
  for (const n of needs)
    if (n.price !== null) sums.set(n.currency, (sums.get(n.currency) ?? 0) + n.price);
  return [...sums].map(([currency, sum]) => `${sum.toFixed(0)} ${currency}`.trim()).join(", ");
}
