import { LIMITS } from "./limits.gen";

/** The limits of what each kind of check reads. */
export const READING_LIMITS = {
  effort: LIMITS.effort,
  rank: LIMITS.rank,
  depth: LIMITS.depth_mm,
  force: LIMITS.force_gf,
};

export const readingLimit = (check: string) =>
  READING_LIMITS[check in READING_LIMITS ? (check as keyof typeof READING_LIMITS) : "force"];
