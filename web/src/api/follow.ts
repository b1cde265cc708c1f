import { useEffect, useRef } from "react";
import type { Schemas } from "./client";
import { folderAddress } from "./folder";

type Follow = Schemas["FollowOut"];
const FIRST_WAIT_MS = 400;
const LONGEST_WAIT_MS = 3000;

/** Hear what happens on the server as it happens; a lost connection is taken up again by itself. */
export function useFollow(address: (() => string) | null, onNews: (news: Follow) => void): void {
  const latest = useRef(onNews);
  latest.current = onNews;
  const where = useRef(address);
  where.current = address;
  const listens = address !== null;
  useEffect(() => {
    if (!listens) return;
    let source: EventSource | undefined;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let wait = FIRST_WAIT_MS;
    const open = () => {
      if (where.current === null) return;
      source = new EventSource(folderAddress(where.current()));
      source.onmessage = (event) => {
        wait = FIRST_WAIT_MS;
        latest.current(JSON.parse(event.data) as Follow);
      };
      source.onerror = () => {
        source?.close();
        timer = setTimeout(open, wait);
        wait = Math.min(2 * wait, LONGEST_WAIT_MS);
      };
    };
    open();
    return () => {
      clearTimeout(timer);
      source?.close();
    };
  }, [listens]);
}
