import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { standingsQuery } from "../../api/queries";
import { WORDS } from "../../domain/words";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Fold } from "../../ui/Fold";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Failed, Waiting } from "../../ui/State";
import { Tick } from "../../ui/Tick";
import { useWidth } from "../../ui/useWidth";
import { Bridges, Doubts, NextCut, SpreadShares } from "./Beside";
import { Groups } from "./Groups";
import { Ladder } from "./Ladder";
import { agreeing, askedIn, asking, shownRungs } from "./question";
import { Testers } from "./Testers";

type Board = Schemas["BoardOut"];
type Change = Readonly<Record<string, string | readonly string[] | boolean>>;

/** Where every blade stands among all that were ever cut, like with like. */
export function Standings() {
  const [search, setSearch] = useSearchParams();
  const found = useQuery(standingsQuery(askedIn(search)));
  const ask = (change: Change) => setSearch(asking(search, change), { replace: true });
  if (found.isPending) return <Waiting what="all trials" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const { answer, refused } = found.data;
  if (answer)
    return <BoardPage board={answer} newer={newer(found.data)} search={search} onAsk={ask} />;
  return (
    <Page>
      <h1 className="answer max-w-4xl">
        {refused ? `${refused[0]?.toUpperCase()}${refused.slice(1)}.` : "Comparing all trials …"}
      </h1>
      <p className="mt-1 text-ink-2" role="status">
        {newer(found.data)}
      </p>
      {refused && search.size ? (
        <button
          type="button"
          className="mt-3 min-h-11 cursor-pointer underline underline-offset-4"
          onClick={() => setSearch({})}
        >
          Show the usual standings
        </button>
      ) : null}
    </Page>
  );
}

/** What is on its way, and how far it is. */
function newer({ answer, is_behind, trials_done, trials }: Schemas["StandingsOut"]): string {
  if (!is_behind) return "";
  if (trials_done < trials)
    return `${trials_done} of ${trials} trials are worked out; the comparison follows.`;
  return answer ? "A newer answer is being calculated." : "";
}

function BoardPage({
  board,
  newer,
  search,
  onAsk,
}: {
  board: Board;
  newer: string;
  search: URLSearchParams;
  onAsk: (change: Change) => void;
}) {
  const { ref, width } = useWidth<HTMLDivElement>(820);
  const [typed, setTyped] = useState("");
  const [chosen, setChosen] = useState("");
  const kept = search.getAll("keep");
  const keep = (arm: string) =>
    onAsk({ keep: kept.includes(arm) ? kept.filter((each) => each !== arm) : [...kept, arm] });
  const islands = board.islands.map((island, number) => ({
    island,
    rungs: shownRungs(
      board.rungs.filter((rung) => rung.island === number),
      typed,
      kept,
    ),
  }));
  return (
    <Page width="wide">
      <h1 className="answer max-w-5xl">{board.headline}</h1>
      <p className="mt-1 max-w-5xl text-ink-2">
        {[...board.basis, ...board.loosened].join(" ")}
        {newer ? ` ${newer}` : ""}
      </p>
      <div className="mt-3 gap-8 bench:grid bench:grid-cols-[minmax(0,1fr)_20rem]">
        <div ref={ref} className="min-w-0">
          <Controls board={board} typed={typed} onType={setTyped} onAsk={onAsk} />
          {board.by === "arm" ? (
            islands.map(({ island, rungs }, number) => (
              <section key={island.reference} aria-label={`Island ${number + 1}`}>
                {number ? (
                  <h2 className="mt-5 font-bold">
                    Not connected to the others:{" "}
                    {island.arms === 1 ? "1 blade" : `${island.arms} blades`}
                  </h2>
                ) : null}
                <Ladder
                  board={board}
                  rungs={rungs}
                  chosen={chosen}
                  kept={kept}
                  width={width}
                  onChoose={setChosen}
                  onKeep={keep}
                  onAsk={onAsk}
                />
                {typed && rungs.length === 0 ? <p className="mt-2">No matches.</p> : null}
              </section>
            ))
          ) : (
            <Groups board={board} width={width} />
          )}
          <Testers board={board} />
        </div>
        <aside className="mt-6 flex flex-col gap-5 bench:mt-0">
          <Doubts board={board} />
          <NextCut board={board} onAsk={onAsk} />
          <Bridges board={board} />
          <SpreadShares board={board} />
          <MustAgree board={board} onAsk={onAsk} />
        </aside>
      </div>
    </Page>
  );
}

function Controls({
  board,
  typed,
  onType,
  onAsk,
}: {
  board: Board;
  typed: string;
  onType: (text: string) => void;
  onAsk: (change: Change) => void;
}) {
  const shown = board.classes.find((each) => each.is_shown);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3 bench:grid-cols-[minmax(0,2fr)_1fr_1fr_1fr]">
      <Choice
        label="Lives"
        value={shown?.like.join("|") ?? ""}
        onPick={(like) => onAsk({ like: like.split("|"), reference: "" })}
      >
        {board.classes.map((each) => (
          <Option key={each.like.join("|")} value={each.like.join("|")}>
            {each.says} ({each.size})
          </Option>
        ))}
      </Choice>
      <Choice label="Show" value={board.by} onPick={(by) => onAsk({ by })}>
        <Options of={WORDS.ladderBy} />
      </Choice>
      <Choice
        label="Reference"
        value={board.reference}
        onPick={(reference) => onAsk({ reference })}
      >
        {board.rungs.map((rung) => (
          <Option key={rung.arm} value={rung.arm}>
            {rung.code}
          </Option>
        ))}
      </Choice>
      <Field label="Find" value={typed} onChange={(event) => onType(event.target.value)} />
    </div>
  );
}

/** What lives must agree in; each that is loosened is named in the answer. */
function MustAgree({ board, onAsk }: { board: Board; onAsk: (change: Change) => void }) {
  const agree = board.criteria.filter((each) => each.agrees).map((each) => each.key);
  return (
    <Fold title="What must agree">
      {board.criteria.map((each) => (
        <div key={each.key}>
          <Tick
            label={each.label}
            checked={each.agrees}
            onTick={(on) => onAsk({ agree: agreeing(agree, each.key, on), like: "" })}
          />
          <Note className="-mt-2 pl-8">{each.explained}</Note>
        </div>
      ))}
      <Tick
        label="only edges that were matched in their trial"
        checked={board.fair_only}
        onTick={(on) => onAsk({ fair_only: on })}
      />
      <Tick
        label="count lives that disagree with all others"
        checked={board.with_doubted}
        onTick={(on) => onAsk({ with_doubted: on })}
      />
    </Fold>
  );
}
