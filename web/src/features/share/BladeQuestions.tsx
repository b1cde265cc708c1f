import { useQuery } from "@tanstack/react-query";
import { useChange } from "../../api/changes";
import { askAgain, bladeQuestionsQuery, saySame } from "../../api/packages";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Heading } from "../../ui/Section";
import { TextButton } from "../../ui/TextButton";

/** Blades of several testers that may be one: asked once, remembered, split again. */
export function BladeQuestions() {
  const asked = useQuery(bladeQuestionsQuery);
  const say = useChange(saySame);
  const again = useChange(askAgain);
  const sayAll = useChange(async (all: ReadonlyArray<{ one: string; other: string }>) => {
    for (const { one, other } of all) await saySame({ one, other, is_same: true });
  });
  const open = asked.data?.filter((each) => each.is_same === null) ?? [];
  const said = asked.data?.filter((each) => each.is_same !== null) ?? [];
  const alike = open.filter((each) => each.nothing_differs);
  if (open.length + said.length === 0) return null;
  return (
    <section aria-label="The same blade?">
      <Heading>The same blade?</Heading>
      <Note>
        Blades that are one share a rung of the standings; their records stay as they are.
      </Note>
      <Notice says={say.error?.message ?? sayAll.error?.message ?? again.error?.message} />
      {alike.length > 2 ? (
        <Button className="mt-2" disabled={sayAll.isPending} onClick={() => sayAll.mutate(alike)}>
          One blade for each of the {alike.length} pairs that differ in nothing
        </Button>
      ) : null}
      <ul className="mt-2">
        {open.map(({ one, other, says, facts }) => (
          <li key={`${one} ${other}`} className="border-t border-line py-2">
            <p className="font-semibold">Are {says} one blade?</p>
            <p className="text-note text-ink-2">{facts}</p>
            <p className="mt-1 flex gap-3">
              <Button onClick={() => say.mutate({ one, other, is_same: true })}>One blade</Button>
              <Button onClick={() => say.mutate({ one, other, is_same: false })}>Two blades</Button>
            </p>
          </li>
        ))}
        {said.map(({ one, other, says, is_same }) => (
          <li key={`${one} ${other}`} className="border-t border-line py-2">
            {says}: {is_same ? "one blade" : "two blades"}{" "}
            <TextButton onClick={() => again.mutate({ one, other })}>
              {is_same ? "Split again" : "Ask again"}
            </TextButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
