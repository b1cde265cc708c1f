import { Note } from "../../ui/Note";
import { Section } from "../../ui/Section";
import { Table } from "../../ui/Table";
import type { Soak } from "./soak";

/** What the coupons lost by weight, where any was weighed. */
export function Masses({ soak }: { soak: Soak }) {
  const { masses, cabinet } = soak.answer;
  if (masses.length === 0) return null;
  const called = (id: string) => soak.coupons.find((coupon) => coupon.id === id)?.called ?? "";
  return (
    <Section title="Mass lost" className="mt-8">
      {cabinet.map((line) => (
        <p key={line}>{line}</p>
      ))}
      <Table
        heads={[
          "coupon",
          "exposed",
          "gained with rust, mg",
          "lost, mg",
          "g/m²",
          "mm a year",
          "missing",
        ]}
        cell="py-1.5 pr-6"
        className="min-w-[620px]"
        scrolls="Mass lost by each coupon"
      >
        {masses.map((loss) => (
          <tr key={loss.coupon_id} className="border-t border-line align-baseline">
            <th scope="row" className="py-1.5 pr-6 text-left font-semibold">
              {called(loss.coupon_id)}
            </th>
            <td className="pr-6 whitespace-nowrap">{loss.hours.toFixed(1)} h</td>
            <td className="pr-6">{loss.gained_mg}</td>
            <td className="pr-6 font-semibold">{loss.lost_mg}</td>
            <td className="pr-6 font-semibold">{loss.lost_g_m2}</td>
            <td className="pr-6">{loss.rate_mm_a}</td>
            <td className="text-note text-ink-2">{loss.missing}</td>
          </tr>
        ))}
      </Table>
      <Note className="mt-2">
        Cleaned, less the blank of the cleaning (ISO 8407). An even mm a year says nothing of pits.
      </Note>
    </Section>
  );
}
