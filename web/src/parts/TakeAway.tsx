import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useChange } from "../api/changes";
import { type BinnedKind, bringBack, hangsOnQuery, putIntoBin } from "../api/record";
import { newId } from "../domain/ids";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { Sheet } from "../ui/Sheet";
import { useUndo } from "../ui/Undo";

/** Put a thing into the bin: what goes with it is named first, and it can be undone at once. */
export function TakeAway({
  kind,
  ownerId,
  onGone,
  children,
}: {
  kind: BinnedKind;
  ownerId: string;
  onGone?: () => void;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button kind="quiet" onClick={() => setOpen(true)}>
        {children}
      </Button>
      <Sheet open={open} onOpenChange={setOpen} title="Delete">
        {open ? (
          <Asked kind={kind} ownerId={ownerId} onGone={onGone} onDone={() => setOpen(false)} />
        ) : null}
      </Sheet>
    </>
  );
}

function Asked({
  kind,
  ownerId,
  onGone,
  onDone,
}: {
  kind: BinnedKind;
  ownerId: string;
  onGone: (() => void) | undefined;
  onDone: () => void;
}) {
  const hangs = useQuery({ ...hangsOnQuery(kind, ownerId), staleTime: 0 });
  const offer = useUndo();
  const [binId] = useState(newId);
  const back = useChange(() => bringBack(binId));
  const away = useChange(
    () => putIntoBin(binId, { kind, owner_id: ownerId, reason: "" }),
    () => {
      offer(`${hangs.data?.name ?? "It"} is in the bin.`, () => back.mutate(undefined));
      onDone();
      onGone?.();
    },
  );
  const wrong = hangs.error ?? away.error;
  return (
    <div>
      {hangs.data ? (
        <>
          <p className="text-lead font-semibold">{hangs.data.name}</p>
          {hangs.data.holds.length ? (
            <>
              <p className="mt-3">With it:</p>
              <ul className="mt-1 list-disc pl-6">
                {hangs.data.holds.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            </>
          ) : (
            <p className="mt-3">Nothing else uses it.</p>
          )}
          <p className="mt-3 text-ink-2">It can be restored from the bin for 30 days.</p>
          <p className="mt-5">
            <Button kind="next" onClick={() => away.mutate(undefined)} disabled={away.isPending}>
              Delete
            </Button>
          </p>
        </>
      ) : null}
      <Notice says={wrong?.message} className="mt-3 font-medium" />
    </div>
  );
}
