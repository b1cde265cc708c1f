import { markOf, markPath } from "../domain/marks";

/** A blade's mark, drawn. */
export function Mark({ mark, size = 22 }: { mark: number; size?: number }) {
  const look = markOf(mark);
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="shrink-0">
      <path d={markPath(look, 12, 12, 8.6)} fill={look.colour} />
    </svg>
  );
}
