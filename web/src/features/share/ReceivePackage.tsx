import { useState } from "react";
import { Link } from "react-router";
import { useChange } from "../../api/changes";
import { bringPackage } from "../../api/packages";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { Faults } from "../../parts/Faults";
import { ImportProgress } from "../../parts/ImportProgress";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Tick } from "../../ui/Tick";

/** A package of another tester, or of one's own, brought in whole. */
export function ReceivePackage({ isNobodys }: { isNobodys: boolean }) {
  const [file, setFile] = useState<File>();
  const [id, setId] = useState(newId);
  const [isMine, setMine] = useState(false);
  const bring = useChange((importId: string) =>
    bringPackage(file as File, importId, isMine).finally(() => setId(newId())),
  );
  const tooLarge = Boolean(file && file.size > LIMITS.package_upload_mb.most * 1e6);
  return (
    <div className="mt-2 flex flex-col gap-3">
      <FilePick
        label="Package (.kessik.zip)"
        accept=".zip,application/zip"
        isWrong={tooLarge}
        onPick={([first]) => setFile(first)}
      />
      {tooLarge ? (
        <span role="alert" className="font-medium text-rust">
          Up to {LIMITS.package_upload_mb.most} MB can be sent: ask for it without pictures.
        </span>
      ) : null}
      {isNobodys ? (
        <Tick label="These are my own trials" checked={isMine} onTick={setMine} />
      ) : null}
      <div>
        <Button
          kind="next"
          disabled={!file || tooLarge}
          onClick={() => (bring.isPending ? undefined : bring.mutate(id))}
        >
          {bring.isPending ? "Reading …" : "Read and bring in"}
        </Button>
      </div>
      {bring.isPending ? <ImportProgress id={id} /> : null}
      {bring.error ? <Faults error={bring.error} /> : null}
      {bring.data ? (
        <div role="status">
          {bring.data.made.says.map((line) => (
            <p key={line}>{line}</p>
          ))}
          <Link className="inline-flex min-h-11 items-center underline" to="/standings">
            See the common standings
          </Link>
        </div>
      ) : null}
    </div>
  );
}
