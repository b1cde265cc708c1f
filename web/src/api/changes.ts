import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useUndo } from "../ui/Undo";
import { Away, api, body, Refused, type Schemas } from "./client";
import { type Done, hearing, noteDone, noteSent } from "./done";
import { folderAddress } from "./folder";
import { isTouched } from "./renewal";

/** Take back what was done, the last first. */
async function undone(done: readonly Done[]): Promise<void> {
  for (const { id } of [...done].reverse()) {
    await body(
      api.POST("/api/changes/{change_id}/undone", { params: { path: { change_id: id } } }),
    );
  }
}

/**
 * A change that is saved at once; what it may have touched is read again, and what was done can be
 * undone for a while.
 */
export function useChange<T, Made>(
  change: (input: T) => Promise<Made>,
  onDone?: () => void,
  onUndone?: () => void,
) {
  const queries = useQueryClient();
  const offer = useUndo();
  const takeBack = async (done: readonly Done[]) => {
    try {
      await undone(done);
      onUndone?.();
    } catch (error) {
      offer(`Not undone: ${(error as Error).message}`);
    }
    await queries.invalidateQueries(); // what was undone may lie anywhere
  };
  return useMutation({
    mutationFn: (input: T) => hearing(() => change(input)),
    onSuccess: async ({ done, paths }) => {
      const says = [...new Set(done.map((each) => each.says))].join(", ");
      if (says) offer(`Done: ${says}.`, () => void takeBack(done));
      await queries.invalidateQueries({
        predicate: ({ queryKey: [head] }) => isTouched(String(head), paths),
      });
      onDone?.();
    },
  });
}

export const patchTrial = (trialId: string, change: Schemas["TrialPatch"]) =>
  body(
    api.PATCH("/api/trials/{trial_id}", { params: { path: { trial_id: trialId } }, body: change }),
  );

export const putMeasurement = (bladeId: string, measurement: Schemas["MeasurementBody"]) =>
  body(
    api.PUT("/api/blades/{blade_id}/measurements/{measurement_id}", {
      params: { path: { blade_id: bladeId, measurement_id: measurement.id } },
      body: measurement,
    }),
  );

export const strikeMeasurement = (measurementId: string, reason: string) =>
  body(
    api.PUT("/api/measurements/{measurement_id}/struck", {
      params: { path: { measurement_id: measurementId } },
      body: { reason },
    }),
  );

export const putEdge = (bladeId: string, edge: Schemas["EdgeBody"]) =>
  body(
    api.PUT("/api/blades/{blade_id}/edges/{edge_id}", {
      params: { path: { blade_id: bladeId, edge_id: edge.id } },
      body: edge,
    }),
  );

export const deleteEdge = (bladeId: string, edgeId: string) =>
  body(
    api.DELETE("/api/blades/{blade_id}/edges/{edge_id}", {
      params: { path: { blade_id: bladeId, edge_id: edgeId } },
    }),
  );

export const putBlade = (blade: Schemas["BladeBody"]) =>
  body(
    api.PUT("/api/blades/{blade_id}", { params: { path: { blade_id: blade.id } }, body: blade }),
  );

export const patchBlade = (bladeId: string, change: Schemas["BladePatch"]) =>
  body(
    api.PATCH("/api/blades/{blade_id}", { params: { path: { blade_id: bladeId } }, body: change }),
  );

export const archiveBlade = (bladeId: string, archived: boolean) =>
  body(
    api.PUT("/api/blades/{blade_id}/archived", {
      params: { path: { blade_id: bladeId } },
      body: { archived },
    }),
  );

export const putRecipe = (recipe: Schemas["RecipeBody"]) =>
  body(
    api.PUT("/api/recipes/{recipe_id}", {
      params: { path: { recipe_id: recipe.id } },
      body: recipe,
    }),
  );

export const deleteRecipe = (recipeId: string) =>
  body(api.DELETE("/api/recipes/{recipe_id}", { params: { path: { recipe_id: recipeId } } }));

export const putGrade = ({ name, grade }: { name: string; grade: Schemas["GradeBody"] }) =>
  body(api.PUT("/api/grades/{name}", { params: { path: { name } }, body: grade }));

export const confirmGrade = ({ name, source }: { name: string; source: string }) =>
  body(
    api.PUT("/api/grade-confirmations/{name}", { params: { path: { name } }, body: { source } }),
  );

export const deleteGrade = (name: string) =>
  body(api.DELETE("/api/grades/{name}", { params: { path: { name } } }));

export const putBatch = (id: string, batch: Schemas["BatchBody"]) =>
  body(api.PUT("/api/batches/{batch_id}", { params: { path: { batch_id: id } }, body: batch }));

export const patchBatch = (id: string, change: Schemas["BatchPatch"]) =>
  body(api.PATCH("/api/batches/{batch_id}", { params: { path: { batch_id: id } }, body: change }));

export const deleteBatch = (id: string) =>
  body(api.DELETE("/api/batches/{batch_id}", { params: { path: { batch_id: id } } }));

export const putShot = (bladeId: string, shotId: string, shot: Schemas["ShotBody"]) =>
  body(
    api.PUT("/api/blades/{blade_id}/shots/{shot_id}", {
      params: { path: { blade_id: bladeId, shot_id: shotId } },
      body: shot,
    }),
  );

export const strikeShot = (bladeId: string, shotId: string, reason: string) =>
  body(
    api.PUT("/api/blades/{blade_id}/shots/{shot_id}/struck", {
      params: { path: { blade_id: bladeId, shot_id: shotId } },
      body: { reason },
    }),
  );

export const putStandInShot = (
  bladeId: string,
  shotId: string,
  asked: Schemas["StandInShotBody"],
) =>
  body(
    api.PUT("/api/blades/{blade_id}/stand-in-shots/{shot_id}", {
      params: { path: { blade_id: bladeId, shot_id: shotId } },
      body: asked,
    }),
  );

export const takeWaitingShots = (shotsId: string, batchId: string) =>
  body(
    api.POST("/api/waiting-shots/{shots_id}/taken", {
      params: { path: { shots_id: shotsId }, query: { batch_id: batchId } },
    }),
  );

export const putAbrasive = (abrasive: Schemas["AbrasiveBody"]) =>
  body(
    api.PUT("/api/abrasives/{abrasive_id}", {
      params: { path: { abrasive_id: abrasive.id } },
      body: abrasive,
    }),
  );

export const deleteAbrasive = (abrasiveId: string) =>
  body(
    api.DELETE("/api/abrasives/{abrasive_id}", { params: { path: { abrasive_id: abrasiveId } } }),
  );

export const putLot = (lot: Schemas["LotBody"]) =>
  body(api.PUT("/api/lots/{lot_id}", { params: { path: { lot_id: lot.id } }, body: lot }));

export const putCorrection = (lotId: string, id: string, correction: Schemas["CorrectionBody"]) =>
  body(
    api.PUT("/api/lots/{lot_id}/corrections/{correction_id}", {
      params: { path: { lot_id: lotId, correction_id: id } },
      body: correction,
    }),
  );

export const putShotsAside = (shotsId: string) =>
  body(api.DELETE("/api/shots/{shots_id}", { params: { path: { shots_id: shotsId } } }));

export const putLotAway = (lotId: string, archived: boolean) =>
  body(
    api.PUT("/api/lots/{lot_id}/archived", {
      params: { path: { lot_id: lotId } },
      body: { archived },
    }),
  );

export const putMethod = (trialId: string, choice: Schemas["MethodChoice"]) =>
  body(
    api.PUT("/api/trials/{trial_id}/method", {
      params: { path: { trial_id: trialId } },
      body: choice,
    }),
  );

export const deletePhoto = (bladeId: string, hash: string) =>
  body(
    api.DELETE("/api/blades/{blade_id}/photos/{content_hash}", {
      params: { path: { blade_id: bladeId, content_hash: hash } },
    }),
  );

/**
 * Files as a form to send, read now: one that was changed on the disk since it was chosen cannot be
 * read any more, and is not sent as nothing.
 */
export async function formOf(files: readonly File[], field = "files"): Promise<FormData> {
  const form = new FormData();
  for (const file of files) {
    try {
      form.append(field, new Blob([await file.arrayBuffer()]), file.name);
    } catch {
      throw new Error(`${file.name} was changed since it was chosen: choose it again.`);
    }
  }
  return form;
}

/** Send a form; the answer or the refusal is read as everywhere. */
export async function sendForm<T>(address: string, form: FormData): Promise<T> {
  let answer: Response;
  noteSent(address);
  try {
    answer = await fetch(folderAddress(address), { method: "POST", body: form });
  } catch {
    throw new Away();
  }
  noteDone(answer);
  const said: unknown = await answer.json();
  if (!answer.ok) throw new Refused(said as Schemas["Problem"]);
  return said as T;
}

export const putInstrument = (instrument: Schemas["InstrumentBody"]) =>
  body(
    api.PUT("/api/instruments/{instrument_id}", {
      params: { path: { instrument_id: instrument.id } },
      body: instrument,
    }),
  );

export const putReferenceCheck = ({
  instrumentId,
  check,
}: {
  instrumentId: string;
  check: Schemas["ReferenceCheckBody"];
}) =>
  body(
    api.PUT("/api/instruments/{instrument_id}/reference-checks/{check_id}", {
      params: { path: { instrument_id: instrumentId, check_id: check.id } },
      body: check,
    }),
  );

export const putInstrumentAway = (instrumentId: string) =>
  body(
    api.PUT("/api/instruments/{instrument_id}/put-away", {
      params: { path: { instrument_id: instrumentId } },
    }),
  );

export const putRun = (trialId: string, run: Schemas["RunBody"]) =>
  body(
    api.PUT("/api/trials/{trial_id}/runs/{run_id}", {
      params: { path: { trial_id: trialId, run_id: run.id } },
      body: run,
    }),
  );
