import { useState } from "react";
import { useNavigate } from "react-router";
import { archiveBlade, deleteBlade, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { useUndo } from "../../ui/Undo";

/**
 * A blade with runs is archived, which can be undone; one without may be taken off the shelf for
 * good.
 */
export function PutAway({ blade, runs }: { blade: Schemas["BladeOut"]; runs: number }) {
  const navigate = useNavigate();
  const [sure, setSure] = useState(false);
  const offerUndo = useUndo();
  const archive = useChange((archived: boolean) => archiveBlade(blade.id, archived));
  const putAway = async () => {
    await archive.mutateAsync(true);
    offerUndo(`${blade.code} is in the archive.`, () => archive.mutate(false));
  };
  const remove = useChange(async () => {
    await deleteBlade(blade.id);
    navigate("/shelf");
  });
  const error = archive.error ?? remove.error;
  return (
    <>
      {blade.archived_utc ? (
        <Button kind="next" onClick={() => archive.mutate(false)}>
          Take it out of the archive
        </Button>
      ) : (
        <Button onClick={() => void putAway().catch(() => undefined)}>Archive</Button>
      )}
      {runs > 0 ? null : sure ? (
        <Button kind="danger" onClick={() => remove.mutate(undefined)}>
          Yes, for good: this cannot be undone
        </Button>
      ) : (
        <Button kind="quiet" onClick={() => setSure(true)}>
          Take off the shelf
        </Button>
      )}
      {error ? (
        <p role="alert" className="text-rust">
          {error.message}
        </p>
      ) : null}
    </>
  );
}
