import { Refused } from "../../api/client";

/** Which of the files is no picture, or which row cannot be, and why. */
export function refusedPictures(error: Error): string {
  const faults = error instanceof Refused ? (error.problem.faults ?? []) : [];
  return faults.map((fault) => fault.message).join(" ") || error.message;
}
