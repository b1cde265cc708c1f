import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useChange } from "../../api/changes";
import { strikeToughness } from "../../api/hanging";
import { toughnessQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Section } from "../../ui/Section";
import { Sheet } from "../../ui/Sheet";
import { type Owner, ToughnessForm } from "./ToughnessForm";

/** Energies to break: each with its test, who says so, and what others of the same test have. */
export function Toughness({ owner }: { owner: Owner }) {
  const found = useQuery(toughnessQuery(owner));
  const [adding, setAdding] = useState(false);
  const strike = useChange(({ id, reason }: { id: string; reason: string }) =>
    strikeToughness(id, reason),
  );
  if (!found.data) return null;
  const { values, beside } = found.data;
  return (
    <Section title="Toughness">
      <ul>
        {values.map((each) => (
          <li key={each.id} className="mt-1 flex items-start justify-between gap-3">
            <span className={each.struck ? "text-ink-2 line-through" : ""}>
              <span className="font-semibold">{each.says}</span>
              <span className="block text-note text-ink-2">
                {[each.test_says, each.known_from, each.note].filter(Boolean).join(" · ")}
              </span>
            </span>
            <Button
              kind="quiet"
              onClick={() =>
                strike.mutate({ id: each.id, reason: each.struck ? "" : "was not so" })
              }
            >
              {each.struck ? "Include again" : "Exclude"}
            </Button>
          </li>
        ))}
      </ul>
      {values.length === 0 ? <p className="text-ink-2">Not known.</p> : null}
      {beside.map((line) => (
        <Note key={line} className="mt-1">
          {line}
        </Note>
      ))}
      <Button kind="quiet" className="px-0" onClick={() => setAdding(true)}>
        Add a toughness
      </Button>
      <Sheet open={adding} onOpenChange={setAdding} title="Toughness">
        <ToughnessForm owner={owner} onDone={() => setAdding(false)} />
      </Sheet>
    </Section>
  );
}
