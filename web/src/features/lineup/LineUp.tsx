import { useQuery } from "@tanstack/react-query";
import { Link, useParams, useSearchParams } from "react-router";
import { lineUpQuery } from "../../api/queries";
import { unbroken } from "../../domain/format";
import { RustOfTrial } from "../../parts/RustWord";
import { Button, buttonLook } from "../../ui/Button";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting } from "../../ui/State";
import { AddBlade } from "./AddBlade";
import { Consequences } from "./Consequences";
import { Matrix } from "./Matrix";
import { StartRun } from "./StartRun";
import { TrialMethod } from "./TrialMethod";

/** Blades by variables: whether the comparison will be fair, before an edge is spent on it. */
export function LineUp() {
  const { trialId = "" } = useParams();
  const lineUp = useQuery(lineUpQuery(trialId));
  const [search, setSearch] = useSearchParams();
  if (lineUp.isPending) return <Waiting what="the line-up" />;
  if (lineUp.isError) return <Failed error={lineUp.error} onRetry={() => void lineUp.refetch()} />;
  const data = lineUp.data;
  const starting = search.get("start");
  const adding = search.get("add") === "blade";
  const close = () => setSearch({});
  const step = data.next_step;
  return (
    <div className="mx-auto max-w-[1400px] pt-6">
      <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-4 px-4 bench:px-7">
        <h1 className="answer min-w-0 max-w-4xl basis-[32rem] grow">{unbroken(data.says)}</h1>
        <div className="flex flex-wrap gap-3">
          <Button onClick={() => setSearch({ add: "blade" })}>Add a blade</Button>
          {data.blades.length ? (
            <>
              <Link className={buttonLook()} to={`/trials/${trialId}/prepare`}>
                Prepare edges
              </Link>
              <Link className={buttonLook()} to={`/trials/${trialId}/record`}>
                Record
              </Link>
            </>
          ) : null}
          {step.kind === "go_on" && step.run_id ? (
            <a className={buttonLook("next")} href={`/runs/${step.run_id}`}>
              {step.says}
            </a>
          ) : step.kind === "start_run" ? (
            <Button kind="next" onClick={() => setSearch({ start: step.arm_id ?? "" })}>
              {step.says}
            </Button>
          ) : null}
        </div>
      </div>
      <Matrix lineUp={data} onStart={(armId) => setSearch({ start: armId })} />
      <div className="grid gap-x-12 gap-y-8 px-4 pt-5 bench:grid-cols-[1fr_380px] bench:px-7">
        <Consequences lineUp={data} />
        <TrialMethod lineUp={data} />
      </div>
      <div className="px-4 bench:px-7">
        <RustOfTrial trialId={trialId} />
      </div>
      <Sheet
        open={starting !== null && data.blades.length > 0}
        onOpenChange={(o) => (o ? null : close())}
        title="Start a run"
        note={
          "One run uses up one sharpening. A practice run takes its readings from the virtual " +
          "bench and stays out of every comparison."
        }
      >
        <StartRun lineUp={data} armId={starting ?? ""} />
      </Sheet>
      <Sheet open={adding} onOpenChange={(o) => (o ? null : close())} title="Add a blade">
        <AddBlade lineUp={data} onDone={close} />
      </Sheet>
    </div>
  );
}
