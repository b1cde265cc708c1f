import type { Log } from "../../api/events";
import { RunLog } from "../../parts/RunLog";
import type { Run } from "./bench";
import { KeyPanel } from "./KeyPanel";
import type { Shown } from "./projection";
import { ReadingsChart } from "./ReadingsChart";
import type { BenchSettings } from "./useBenchSettings";

/** Beside the count: the readings drawn, the log, or the keys. */
export function SidePanel({
  run,
  shown,
  log,
  settings,
  width,
}: {
  run: Run;
  shown: Shown;
  log: Log;
  settings: BenchSettings;
  width: number;
}) {
  const { panel, keys, changeKeys, showChart } = settings;
  if (panel === "log") return <RunLog run={run} log={log} />;
  if (panel === "keys") return <KeyPanel keys={keys} onKeys={changeKeys} onClose={showChart} />;
  const isWide = width > 860;
  return (
    <ReadingsChart
      run={run}
      shown={shown}
      width={isWide ? Math.min(500, width * 0.4) : width - 32}
      height={isWide ? 330 : 250}
    />
  );
}
