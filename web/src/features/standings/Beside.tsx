import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { useChange } from "../../api/changes";
import { api, body, type Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import { WORDS } from "../../domain/words";
import { Choice, Option, Options } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Section } from "../../ui/Section";
import { TextButton } from "../../ui/TextButton";

type Board = Schemas["BoardOut"];
type Ask = (change: Record<string, string>) => void;

/** Trials that disagree with all others, each with what to check. */
export function Doubts({ board }: { board: Board }) {
  return (
    <Section title="Trials that disagree">
      {board.doubted.map((each) => (
        <div key={`${each.trial_id} ${each.arm}`} className="mt-1 border-l-4 border-rust pl-3">
          <p className="font-semibold">{each.says}</p>
          <p className="text-note">{each.with_and_without}</p>
          <Fold title="What to check">
            <ul className="list-disc pl-5 text-note">
              {each.checklist.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </Fold>
          <Link
            className="inline-flex min-h-11 items-center underline underline-offset-4"
            to={`/trials/${each.trial_id}/record`}
          >
            Open record
          </Link>
        </div>
      ))}
      {board.doubted.length === 0 ? <p className="mt-1">None found.</p> : null}
      <Note className="mt-1">{board.power}</Note>
    </Section>
  );
}

/** What to cut next for the question that is asked, each made a trial in one press. */
export function NextCut({ board, onAsk }: { board: Board; onAsk: Ask }) {
  const codes = [...board.rungs].sort((a, b) => a.code.localeCompare(b.code));
  const arms = codes.map((rung) => (
    <Option key={rung.arm} value={rung.arm}>
      {rung.code}
    </Option>
  ));
  const [a = "", b = ""] = codes.map((rung) => rung.arm);
  const first = board.first || a;
  const pick = (to: string) =>
    onAsk({
      asking: to,
      first: to === "top" ? "" : first,
      second: to === "pair" ? board.second || (first === b ? a : b) : "",
    });
  return (
    <Section title="Next cut">
      <div className="mt-1 flex flex-wrap gap-2">
        <Choice label="Question" value={board.asking} onPick={pick} className="w-full">
          <Options of={WORDS.askings} />
        </Choice>
        {board.asking !== "top" ? (
          <Choice
            label="Blade"
            value={first}
            onPick={(arm) => onAsk({ first: arm })}
            className="flex-1"
          >
            {arms}
          </Choice>
        ) : null}
        {board.asking === "pair" ? (
          <Choice
            label="and"
            value={board.second}
            onPick={(arm) => onAsk({ second: arm })}
            className="flex-1"
          >
            {arms}
          </Choice>
        ) : null}
      </div>
      <p className="mt-2">{board.advice.says}</p>
      <ul>
        {board.advice.cuts.slice(0, 3).map((cut) => (
          <li key={cut.says} className="mt-2">
            <p className="text-note">{cut.says}.</p>
            <MakeTrial of={cut.trial} />
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** Blades that no path connects with the others, and what would. */
export function Bridges({ board }: { board: Board }) {
  if (board.bridges.length === 0) return null;
  return (
    <Section title="Islands">
      {board.bridges.slice(0, 6).map((bridge) => (
        <div key={bridge.island} className="mt-1">
          <p className="text-note">{bridge.says}</p>
          <MakeTrial of={bridge.trial} />
        </div>
      ))}
    </Section>
  );
}

function MakeTrial({ of }: { of: Schemas["ProposedTrialOut"] }) {
  const navigate = useNavigate();
  const [id] = useState(newId);
  const make = useChange(
    () => body(api.POST("/api/standings/trials", { body: { id, ...of } })),
    () => navigate(`/trials/${id}/line-up`),
  );
  return (
    <>
      <TextButton className="font-semibold" disabled={make.isPending} onClick={() => make.mutate()}>
        Make trial
      </TextButton>
      <Notice says={make.error?.message} />
    </>
  );
}

/** Where lives differ: how much of the whole spread is steel, blade, edge and block. */
export function SpreadShares({ board }: { board: Board }) {
  if (board.spread.length === 0) return null;
  return (
    <Section title="Where lives differ">
      <table className="mt-1 w-full text-note">
        <tbody>
          {board.spread.map((share) => (
            <tr key={share.label}>
              <th scope="row" className="w-1/2 py-0.5 text-left font-normal">
                {share.label}
              </th>
              <td className="py-0.5">
                <span
                  className="inline-block h-2.5 bg-steel-2 align-middle"
                  style={{ width: `${0.6 * share.percent}%` }}
                />{" "}
                {share.percent.toFixed(0)} %
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Section>
  );
}
