import { patchTrial, useChange } from "../api/changes";
import type { Schemas } from "../api/client";
import { useUndo } from "../ui/Undo";

type Patch = Schemas["TrialPatch"];

/** Change what is said of a trial, and offer to undo. */
export function useTrialPatch(trial: Schemas["TrialOut"], onDone?: () => void) {
  const offer = useUndo();
  const save = useChange((patch: Patch) => patchTrial(trial.id, patch));
  const change = (patch: Patch) => {
    const before = Object.fromEntries(
      Object.keys(patch)
        .filter((name) => name in trial)
        .map((name) => [name, trial[name as keyof typeof trial]]),
    ) as Patch;
    save.mutate(patch, {
      onSuccess: () => {
        onDone?.();
        offer("The trial was changed.", () => save.mutate({ ...before, reason: "undone" }));
      },
    });
  };
  return { change, error: save.error, isPending: save.isPending };
}
