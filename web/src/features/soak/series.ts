import { LIMITS } from "../../domain/limits.gen";
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

/** What one place showed in a round, the last inspection of it first; a time-lapse has several. */
export function byPlace<L extends Soak["looks"][number]>(looks: readonly L[]): L[][] {
  const places = new Map<string, L[]>();
  for (const look of looks) {
    const place = [look.side, look.stage, look.region, look.seen_by, look.struck].join("|");
    places.set(place, [look, ...(places.get(place) ?? [])]);
  }
  return [...places.values()];
}

/** A folder of pictures in as many parts as one request can hold each. */
export function uploadsOf<F extends { readonly size: number }>(files: readonly F[]): F[][] {
  const parts: F[][] = [];
  let room = 0;
  for (const file of files) {
    const part = parts.at(-1);
    if (part && part.length < LIMITS.files.most && file.size <= room) part.push(file);
    else {
      parts.push([file]);
      room = UPLOAD_BYTES;
    }
    room -= file.size;
  }
  return parts;
}

/** A little under the limit: what surrounds the files of a request counts, too. */
const UPLOAD_BYTES = (LIMITS.upload_mb.most - 1) * 1e6;
