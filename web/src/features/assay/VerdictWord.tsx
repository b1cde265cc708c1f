import type { Schemas } from "../../api/client";

type Verdict = Schemas["AssayLineOut"]["verdict"];

const LOOK: Record<Verdict, string> = {
  consistent: "",
  undecidable: "border-b-2 border-dashed border-ink",
  excluded: "border-b-[3px] border-rust text-rust",
  no_claim: "text-ink-2",
  not_shot: "text-ink-2",
};

/** The word on a claim; never that a steel is something. */
export function VerdictWord({ verdict, word }: { verdict: Verdict; word: string }) {
  return <b className={`inline-block text-lead ${LOOK[verdict]}`}>{word}</b>;
}
