import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { strikeToughness } from "../../api/hanging";
import { toughnessQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Section } from "../../ui/Section";
import { Sheet } from "../../ui/Sheet";
import { NotedList } from "./NotedList";
import { type Owner, ToughnessForm } from "./ToughnessForm";

/** Energies to break: each with its test, who says so, and what others of the same test have. */
export function Toughness({ owner }: { owner: Owner }) {
  const found = useQuery(toughnessQuery(owner));
  const [adding, setAdding] = useState(false);
  if (!found.data) return null;
  const { values, beside } = found.data;
  return (
    <Section title="Toughness">
      <NotedList
        noted={values}
        look="font-semibold"
        more={(each) => [each.test_says, each.known_from, each.note]}
        strike={strikeToughness}
      />
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
