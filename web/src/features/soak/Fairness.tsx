import { labelOf } from "../../domain/words";
import type { Soak } from "./soak";

/** What is held equal, as the line-up of a trial has it, with the variables that matter to rust. */
export function Fairness({ soak }: { soak: Soak }) {
  const { held } = soak.answer;
  if (soak.coupons.length < 2) return null;
  return (
    <section aria-label="Held equal" className="mt-8 border-t-[1.5px] border-ink pt-3">
      <h2 className="text-lead font-bold">Held equal</h2>
      <dl className="mt-2 grid grid-cols-2 gap-x-6 gap-y-3 bench:grid-cols-5">
        {held.map((variable) => (
          <div
            key={variable.variable}
            className={`border-l-4 pl-3 ${
              variable.status === "confounded"
                ? "border-rust bg-rust-soft"
                : variable.status === "factor"
                  ? "border-next"
                  : variable.status === "pending"
                    ? "border-glint"
                    : "border-line"
            }`}
          >
            <dt className="font-semibold">{variable.name}</dt>
            <dd className="text-note">
              {labelOf("soakStates", variable.status)}
              <span className="block text-ink-2">{told(variable.values)}</span>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** The different values, each once. */
function told(values: Record<string, string>): string {
  const different = [...new Set(Object.values(values))].map((value) => value || "none");
  return different.length > 4
    ? `${different.slice(0, 3).join(", ")} and ${different.length - 3} more`
    : different.join(", ");
}
