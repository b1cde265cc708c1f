import type { Schemas } from "../../api/client";
import { unbroken } from "../../domain/format";
import { Heading } from "../../ui/Section";
import { Term, type TermName } from "../../ui/Term";
import { useWidth } from "../../ui/useWidth";
import { Pairs } from "./Pairs";
import { StageLadder } from "./StageLadder";

interface Props {
  data: Schemas["AnswerOut"];
  byForce: (stage: string) => boolean;
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}

/** Every other stage in a place of its own, and how the stages add up to the total. */
export function OtherStages({ data, byForce, highlighted, onHighlight }: Props) {
  const room = useWidth<HTMLDivElement>(480);
  return (
    <div ref={room.ref}>
      <Lines title="How the stages add up" lines={data.sums} />
      <Lines title={`On the way to ${data.stage}`} term="cutting work" lines={data.ways} />
      {data.other_stages.map((found) => (
        <section
          key={found.stage}
          aria-label={`To ${found.stage}`}
          className="mt-8 border-t-[1.5px] border-ink pt-3"
        >
          <Heading>{unbroken(found.headline)}</Heading>
          <div className="mt-2 max-w-[640px]">
            <StageLadder
              stage={found.stage}
              ladder={found.ladder}
              tieGroups={found.tie_groups}
              byForce={byForce(found.stage)}
              stageWords={data.trial.method.stage_words}
              width={Math.min(room.width, 640)}
              highlighted={highlighted}
              onHighlight={onHighlight}
            />
          </div>
          <Pairs found={found} blades={data.blades} {...{ highlighted, onHighlight }} />
        </section>
      ))}
    </div>
  );
}

function Lines({
  title,
  term,
  lines,
}: {
  title: string;
  term?: TermName;
  lines: readonly string[];
}) {
  if (!lines.length) return null;
  return (
    <section aria-label={title} className="mt-8 border-t-[1.5px] border-ink pt-3">
      <Heading>
        {title} {term ? <Term of={term} /> : null}
      </Heading>
      <ul>
        {lines.map((words) => (
          <li key={words} className="border-b border-line py-1.5">
            {unbroken(words)}
          </li>
        ))}
      </ul>
    </section>
  );
}
