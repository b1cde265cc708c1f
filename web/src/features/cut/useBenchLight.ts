import { useEffect } from "react";
import { benchLight } from "../../ui/light";

/** Another light at the bench, and a screen that stays awake where the browser allows. */
export function useBenchLight() {
  useEffect(() => {
    benchLight(true);
    let lock: WakeLockSentinel | undefined;
    const wake = () => {
      if (document.visibilityState !== "visible") return;
      void navigator.wakeLock
        ?.request("screen")
        .then((held) => {
          lock = held;
        })
        .catch(() => undefined);
    };
    wake();
    // the browser lets go of it when the page is hidden
    document.addEventListener("visibilitychange", wake);
    return () => {
      document.removeEventListener("visibilitychange", wake);
      benchLight(false);
      void lock?.release();
    };
  }, []);
}
