/** What is read again after a change: what it may have touched, and nothing else. */

/** What never changes while Kessik runs, or is asked with all that it depends on in its key. */
const NEVER = ["quantities", "lot-kinds", "soak-grades", "reckoner", "import"] as const;
/** What a change anywhere may alter: what waits, what can be found, what is in the bin. */
const ALWAYS = ["today", "find", "bin", "dependents", "record", "practice"] as const;

const SOAKS = [
  "soaks",
  "soak",
  "soaks-side-by-side",
  "soak-methods",
  "blade-soaks",
  "trial-soaks",
  "measuring",
  "soak-among",
  "soak-pass",
] as const;
const STEELS = ["grades", "grade", "grades-alike", "assays", "blade-assay", "batch"] as const;
const ANSWERS = [
  "line-up",
  "verdict",
  "performance",
  "side-by-side",
  "assay-offers",
  "standings",
  "references",
] as const;

/**
 * The first word of the paths that a change went to, and the answers it touches. A path that is not
 * here touches all: a blade is in trials, soaks and assays alike.
 */
const TOUCHED: Readonly<Record<string, readonly string[]>> = {
  backups: ["backups", "holds"],
  batches: ["assays", "batch", "blade-assay", "shelf", ...ANSWERS],
  grades: [...STEELS, ...ANSWERS, "shelf", "blade"],
  "grade-confirmations": [...STEELS, ...ANSWERS],
  "grade-imports": [...STEELS, ...ANSWERS, "shelf", "blade"],
  instruments: ["instruments", "shots"],
  lots: ["lots", "plan", "plan-tried", "run-stock", "verdict"],
  pairing: ["pairing"],
  pictures: SOAKS,
  recipes: ["shelf", "blade", "line-up", "plan"],
  abrasives: ["shelf"],
  shots: ["shots", "assays"],
  soaks: [...SOAKS, "blade"],
  toughness: ["toughness"],
  exposures: ["exposures"],
  care: ["care"],
  trainings: ["trainers"],
  "gauge-studies": ["gauge-studies", "plan", "plan-tried"],
  "rater-error": ["trainers", ...SOAKS],
};

const areaOf = (path: string): string => /^\/api\/([^/]+)/.exec(path)?.[1] ?? "";

/** Whether an answer, known by the first word of its key, has to be read again after changes. */
export function isTouched(head: string, paths: Iterable<string>): boolean {
  if ((NEVER as readonly string[]).includes(head)) return false;
  if ((ALWAYS as readonly string[]).includes(head)) return true;
  return [...paths].some((path) => TOUCHED[areaOf(path)]?.includes(head) ?? true);
}
