import { useEffect, useRef, useState } from "react";
import { measureRust } from "../../api/soaks";
import type { Measuring } from "./pictureTools";
import { type Rust, type RustMap, readMap } from "./rustMap";

/**
 * The measurement of what is chosen, a moment after the last change, then what is new since the look
 * before; the slider needs neither.
 */
export function useRust(hash: string, measuring: Measuring, earlierLook: string) {
  const [found, setFound] = useState<{ rust: Rust; map: RustMap; at: number } | null>(null);
  const [says, setSays] = useState("");
  const [works, setWorks] = useState(false);
  const asked = JSON.stringify({ ...measuring, threshold: 0.5 });
  const latest = useRef("");
  const threshold = useRef(0.5);
  threshold.current = measuring.threshold ?? 0.5;
  useEffect(() => {
    const chosen = JSON.parse(asked) as Measuring;
    if (chosen.outline.length < 3) {
      setFound(null);
      return undefined;
    }
    const timer = window.setTimeout(async () => {
      latest.current = asked;
      setWorks(true);
      try {
        const sent = { ...chosen, threshold: threshold.current };
        for (const earlier of earlierLook ? ["", earlierLook] : [""]) {
          const rust = await measureRust(hash, sent, earlier);
          const map = await readMap(rust);
          if (latest.current !== asked) return;
          setFound({ rust, map, at: sent.threshold });
          setSays("");
        }
      } catch (error) {
        if (latest.current === asked) setSays((error as Error).message);
      } finally {
        if (latest.current === asked) setWorks(false);
      }
    }, 350);
    return () => window.clearTimeout(timer);
  }, [asked, hash, earlierLook]);
  return { rust: found?.rust ?? null, map: found?.map ?? null, at: found?.at ?? null, says, works };
}
