import { markOf, markPath } from "../domain/marks";

/** A blade's mark, drawn. */
export function Mark({ place, size = 22 }: { place: number; size?: number }) {
  const mark = markOf(place);
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="shrink-0">
      <path d={markPath(mark, 12, 12, 8.6)} fill={mark.colour} />
    </svg>
  );
}
