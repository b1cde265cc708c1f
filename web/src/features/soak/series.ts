import type { Soak } from "./soak";

/** The last picture that something was measured in, with its hour and how many outlines it has. */
export function measuredPicture(looks: Soak["looks"]) {
  const measured = looks.filter((look) => look.picture && !look.struck);
  const last = measured.reduce<Soak["looks"][number] | null>(
    (latest, look) => (latest === null || look.clock_h > latest.clock_h ? look : latest),
    null,
  );
  if (last === null) return null;
  const outlines = measured.filter((look) => look.picture === last.picture).length;
  return { hash: last.picture, hours: last.clock_h, outlines };
}
