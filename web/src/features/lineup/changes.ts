import { api, body, type Schemas } from "../../api/client";

export const putBladeInTrial = (trialId: string, blade: Schemas["BladeBody"]) =>
  body(
    api.PUT("/api/trials/{trial_id}/blades/{blade_id}", {
      params: { path: { trial_id: trialId, blade_id: blade.id } },
      body: blade,
    }),
  );

export const takeFromShelf = (
  trialId: string,
  bladeId: string,
  role: Schemas["BladeOut"]["role"] = "",
  arms: string[] | null = null,
) =>
  body(
    api.PUT("/api/trials/{trial_id}/places/{blade_id}", {
      params: { path: { trial_id: trialId, blade_id: bladeId } },
      body: { role, arms },
    }),
  );

export const dropBlade = (trialId: string, bladeId: string) =>
  body(
    api.DELETE("/api/trials/{trial_id}/blades/{blade_id}", {
      params: { path: { trial_id: trialId, blade_id: bladeId } },
    }),
  );
