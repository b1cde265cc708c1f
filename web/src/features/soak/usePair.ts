import { useState } from "react";
import type { Corner } from "./outline";

/** Two presses on a picture that belong together; what is pressed is shown until both are. */
export function usePair(onPair: (first: Corner, second: Corner) => void) {
  const [pressed, setPressed] = useState<readonly Corner[]>([]);
  const press = (corner: Corner) => {
    const [first] = pressed;
    setPressed(first ? [] : [corner]);
    if (first) onPair(first, corner);
  };
  return { pressed, press };
}
