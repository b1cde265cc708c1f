import type { Schemas } from "../../api/client";

/** How an area is read off a picture, and with what it is said. */
export type Measuring = Schemas["MeasuringBody"];
export type Tool = "ends" | "outline" | "card" | "scale" | "left_out" | "rust" | "clean";

export const TOOL_SAYS: Record<Tool, string> = {
  ends: "press on the plunge line, then on the tip: the outline between them is found",
  outline:
    "press the corners in order around the blade; drag one to move it, press a side to add one",
  card: "press on the white card",
  scale: "press on both ends of a length that you know, a rule or the edge",
  left_out: "draw round what does not count: a mark, a rivet",
  rust: "brush over what is rust",
  clean: "brush over what is not",
};
