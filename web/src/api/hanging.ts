import { formOf, sendForm } from "./changes";
import { api, body, type Schemas } from "./client";

/** What is noted of blades and grades: energies to break, hours wet without a soak, care. */

export const putToughness = (id: string, found: Schemas["ToughnessBody"]) =>
  body(
    api.PUT("/api/toughness/{toughness_id}", {
      params: { path: { toughness_id: id } },
      body: found,
    }),
  );

export const strikeToughness = (id: string, reason: string) =>
  body(
    api.PUT("/api/toughness/{toughness_id}/struck", {
      params: { path: { toughness_id: id } },
      body: { reason },
    }),
  );

export async function energyOfCurve(file: File) {
  const form = await formOf([file], "file");
  return sendForm<Schemas["EnergyOut"]>("/api/energy-of-curve", form);
}

export const energyOfPendulum = (query: {
  mass_kg: number;
  from_mm: number;
  to_mm: number;
  read_mm: number;
  lost_j: number;
}) => body(api.GET("/api/energy-of-pendulum", { params: { query } }));

export const putExposure = (bladeId: string, id: string, found: Schemas["FieldExposureBody"]) =>
  body(
    api.PUT("/api/blades/{blade_id}/exposures/{exposure_id}", {
      params: { path: { blade_id: bladeId, exposure_id: id } },
      body: found,
    }),
  );

export const strikeExposure = (id: string, reason: string) =>
  body(
    api.PUT("/api/exposures/{exposure_id}/struck", {
      params: { path: { exposure_id: id } },
      body: { reason },
    }),
  );

export const putCare = (bladeId: string, id: string, act: Schemas["CareBody"]) =>
  body(
    api.PUT("/api/blades/{blade_id}/care/{care_id}", {
      params: { path: { blade_id: bladeId, care_id: id } },
      body: act,
    }),
  );

export const strikeCare = (id: string, reason: string) =>
  body(
    api.PUT("/api/care/{care_id}/struck", { params: { path: { care_id: id } }, body: { reason } }),
  );
