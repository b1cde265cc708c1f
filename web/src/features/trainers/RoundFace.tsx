import type { ReactNode } from "react";
import { type Judged, pictureAddress, type Round } from "../../api/trainers";
import { Table } from "../../ui/Table";
import { CallFace } from "./CallFace";
import { CountFace } from "./CountFace";
import { ForeseeFace } from "./ForeseeFace";

/** What a round shows, above where it is answered. */
export function RoundFace({
  round,
  seed,
  judged,
  children,
}: {
  round: Round;
  seed: number;
  judged: Judged | null;
  children: ReactNode;
}) {
  if (round.kind === "count") return <CountFace taps={round.taps}>{children}</CountFace>;
  return (
    <>
      <div className="mt-3">{face(round, seed, judged)}</div>
      {children}
    </>
  );
}

function face(round: Round, seed: number, judged: Judged | null) {
  switch (round.kind) {
    case "foresee":
      return <ForeseeFace round={round} later={judged?.later ?? []} />;
    case "rust":
      return (
        <img
          src={pictureAddress(seed, round.number)}
          width={1120}
          height={340}
          alt="A side of a blade with rust, and a white card above it"
          className="h-auto w-full max-w-full rounded-edge"
        />
      );
    case "call":
      return <CallFace blades={round.blades} />;
    default:
      return (
        <Table heads={round.heads} cell="py-1 pr-3" className="w-full max-w-3xl">
          {round.rows.map((row) => (
            <tr key={row[0]} className="border-b border-line">
              {row.map((cell, i) => (
                <td
                  key={round.heads[i]}
                  className={`py-1 pr-3 ${i === 0 ? "font-bold" : "text-lead tabular-nums"}`}
                >
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </Table>
      );
  }
}
