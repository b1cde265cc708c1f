import { Section } from "../../ui/Section";
import { Table } from "../../ui/Table";
import type { Soak } from "./soak";

const PARTS = ["pivot", "lock", "handle"] as const;

/** Pivot, lock and handle before and after, where any was noted. */
export function MovingParts({ soak }: { soak: Soak }) {
  const { parts, parts_say } = soak.answer;
  if (parts.length === 0) return null;
  const shown = PARTS.filter((part) => parts.some((each) => each.part === part));
  const knives = soak.coupons.filter((c) => parts.some((each) => each.coupon_id === c.id));
  const of = (couponId: string, part: string) =>
    parts.find((each) => each.coupon_id === couponId && each.part === part)?.says ?? "";
  return (
    <Section title="Pivot, lock and handle" className="mt-8">
      {parts_say.map((line) => (
        <p key={line}>{line}</p>
      ))}
      <Table
        heads={["knife", ...shown]}
        cell="py-1.5 pr-6"
        className="mt-2 min-w-[480px]"
        scrolls="Moving parts before and after"
      >
        {knives.map((coupon) => (
          <tr key={coupon.id} className="border-t border-line align-baseline">
            <th scope="row" className="py-1.5 pr-6 text-left font-semibold">
              {coupon.called}
            </th>
            {shown.map((part) => (
              <td key={part} className="pr-6">
                {of(coupon.id, part)}
              </td>
            ))}
          </tr>
        ))}
      </Table>
    </Section>
  );
}
