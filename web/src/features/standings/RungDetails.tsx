import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { TextButton } from "../../ui/TextButton";
import { cutsOf } from "./cuts";
import type { Rung } from "./question";

const TRIALS_SHOWN = 8;

/** What the place of a blade rests on, and what can be asked of it. */
export function RungDetails({
  board,
  rung,
  isKept,
  onKeep,
  onAsk,
}: {
  board: Schemas["BoardOut"];
  rung: Rung;
  isKept: boolean;
  onKeep: (arm: string) => void;
  onAsk: (change: Record<string, string>) => void;
}) {
  const cuts = cutsOf(rung.cuts, board.unit);
  return (
    <div className="bg-sheet px-4 pb-3 text-[0.95rem]">
      <p>
        <strong>{rung.place}.</strong> {rung.says}. {rung.rests} {cuts}
      </p>
      {rung.off_group ? <p className="text-rust">{rung.off_group}</p> : null}
      {rung.marks.length ? <p className="text-rust">{rung.marks.join("; ")}.</p> : null}
      <p className="text-note text-ink-2">
        {[rung.maker, rung.heat_treatment, rung.edge_finish].filter(Boolean).join(" · ")}
      </p>
      <p className="mt-1 text-note">
        Trials:{" "}
        {rung.trials.slice(0, TRIALS_SHOWN).map((id, at) => (
          <span key={id}>
            {at ? ", " : ""}
            <Link className="underline underline-offset-4" to={`/trials/${id}/verdict`}>
              {board.trials[id]}
            </Link>
          </span>
        ))}
        {rung.trials.length > TRIALS_SHOWN ? ` and ${rung.trials.length - TRIALS_SHOWN} more` : ""}
      </p>
      <div className="flex flex-wrap gap-x-5">
        <TextButton onClick={() => onAsk({ reference: rung.arm })}>Use as reference</TextButton>
        <TextButton onClick={() => onAsk({ asking: "place", first: rung.arm })}>
          Plan its next cut
        </TextButton>
        <TextButton onClick={() => onKeep(rung.arm)}>
          {isKept ? "Remove from the top" : "Keep on top"}
        </TextButton>
        <Link
          className="min-h-11 content-center underline decoration-line underline-offset-4"
          to={`/blades/${rung.blade_id}`}
        >
          Open blade
        </Link>
      </div>
    </div>
  );
}
