import { labelOf } from "../../domain/words";
import { Section } from "../../ui/Section";
import type { Soak } from "./soak";

/** What is held equal, as the line-up of a trial has it, with the variables that matter to rust. */
export function Fairness({ soak }: { soak: Soak }) {
  const { held } = soak.answer;
  if (soak.coupons.length < 2) return null;
  return (
    <Section title="Held equal" ruled>
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
              <span className="block text-ink-2">{shortened(variable.told)}</span>
            </dd>
          </div>
        ))}
      </dl>
    </Section>
  );
}

/** The different values, a few of many. */
const shortened = (told: readonly string[]): string =>
  told.length > 4 ? `${told.slice(0, 3).join(", ")} and ${told.length - 3} more` : told.join(", ");
