import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { livesUnder } from "../../api/record";
import { typedNumber, unbroken } from "../../domain/format";
import { LIMITS } from "../../domain/limits.gen";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Section } from "../../ui/Section";

/** How long each blade stays under any force, asked for by the tester. */
export function UnderForce({ trialId }: { trialId: string }) {
  const [typed, setTyped] = useState("");
  const [wrong, setWrong] = useState<string | undefined>();
  const [limit, setLimit] = useState<number | null>(null);
  const found = useQuery({
    queryKey: ["lives-under", trialId, limit],
    queryFn: () => livesUnder(trialId, limit ?? 0),
    enabled: limit !== null,
    placeholderData: (before) => before,
  });
  const ask = (event: FormEvent) => {
    event.preventDefault();
    const value = typedNumber(typed);
    const { least, most } = LIMITS.force_gf;
    const fits = typeof value === "number" && value >= least && value <= most;
    setWrong(fits ? undefined : `Give a force from ${least} to ${most} gf`);
    if (fits) setLimit(value);
  };
  return (
    <Section title="Life at another limit" ruled>
      <form onSubmit={ask} className="mt-1 flex flex-wrap items-start gap-3">
        <Field
          label="Force"
          unit="gf"
          inputMode="decimal"
          className="w-36"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          error={wrong ?? found.error?.message}
        />
        <Button type="submit" className="mt-6">
          {found.isFetching ? "Working it out …" : "Show lives"}
        </Button>
      </form>
      {found.data ? (
        <div role="status" className="mt-2">
          <p className="font-semibold">{unbroken(found.data.headline)}</p>
          <dl className="mt-1">
            {Object.entries(found.data.lives).map(([blade, life]) => (
              <div key={blade} className="flex gap-3 border-b border-line py-1">
                <dt className="min-w-24 font-semibold">{blade}</dt>
                <dd>{life}</dd>
              </div>
            ))}
          </dl>
        </div>
      ) : null}
    </Section>
  );
}
