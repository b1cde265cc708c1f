import { useNavigate } from "react-router";
import { archiveBlade, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { TakeAway } from "../../parts/TakeAway";
import { Button } from "../../ui/Button";
import { Notice } from "../../ui/Notice";

/** A blade is archived, or taken off the shelf into the bin; both can be undone. */
export function PutAway({ blade }: { blade: Schemas["BladeOut"] }) {
  const navigate = useNavigate();
  const archive = useChange((archived: boolean) => archiveBlade(blade.id, archived));
  const error = archive.error;
  return (
    <>
      {blade.archived_utc ? (
        <Button kind="next" onClick={() => archive.mutate(false)}>
          Restore from archive
        </Button>
      ) : (
        <Button onClick={() => archive.mutate(true)}>Archive</Button>
      )}
      <TakeAway kind="blade" ownerId={blade.id} onGone={() => navigate("/shelf")}>
        Delete blade
      </TakeAway>
      <Notice says={error?.message} />
    </>
  );
}
