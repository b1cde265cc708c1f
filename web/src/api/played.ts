import { api, body, type Schemas } from "./client";

export type Played = Schemas["PlayedOut"];

export const playPlan = (trialId: string, stated: Schemas["StatedBody"]) =>
  body(
    api.POST("/api/trials/{trial_id}/plan/played", {
      params: { path: { trial_id: trialId } },
      body: stated,
    }),
  );

/** Open one played trial as a full one, in the practice folder. */
export const openPlayed = (playId: string, number: number) =>
  body(
    api.POST("/api/played/{play_id}/{number}", {
      params: { path: { play_id: playId, number } },
    }),
  );
