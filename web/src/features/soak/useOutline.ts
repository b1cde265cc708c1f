import { useState } from "react";
import { outlineBetween, outlineOf } from "../../api/soaks";
import type { Measuring, Tool } from "./pictureTools";
import { usePair } from "./usePair";

/**
 * The outline as the server finds it: by itself, carried over from an earlier inspection, or between
 * the plunge line and the tip, which it asks for where it is unsure.
 */
export function useOutline(
  hash: string,
  measuring: Measuring,
  onChange: (measuring: Measuring) => void,
  onTool: (tool: Tool) => void,
) {
  const [says, setSays] = useState("");
  const [works, setWorks] = useState(false);
  const take = async (asked: () => ReturnType<typeof outlineOf>) => {
    setWorks(true);
    setSays("");
    try {
      const found = await asked();
      setSays(found.unsure);
      if (found.unsure) return onTool("ends");
      const white = measuring.white_point ?? found.white_point ?? null;
      onChange({ ...measuring, outline: found.outline, white_point: white });
      onTool(white ? "outline" : "card");
    } catch (error) {
      setSays((error as Error).message);
    } finally {
      setWorks(false);
    }
  };
  const ends = usePair((plunge, tip) => {
    take(() => outlineBetween(hash, plunge, tip));
  });
  const propose = (lookId: string) => take(() => outlineOf(hash, lookId));
  return { propose, ...ends, says, works };
}
