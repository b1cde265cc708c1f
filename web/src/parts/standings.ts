import type { Schemas } from "../api/client";

export type Standing = NonNullable<Schemas["MeasurementBody"]["standing"]>;

export const STANDINGS: ReadonlyArray<readonly [Standing, string]> = [
  ["measured_here", "measured here"],
  ["measured_elsewhere", "measured elsewhere"],
  ["standard", "from a standard"],
  ["literature", "from the literature"],
  ["claimed", "claimed by the maker"],
  ["guessed", "guessed"],
];

export const standingWords = (standing: string | null): string =>
  STANDINGS.find(([name]) => name === standing)?.[1] ?? "";
