import { useEffect } from "react";
import { Kbd } from "../../ui/Kbd";

/** The keys of the bench in one line, until the next key. */
export function KeyLine({ sound, practice, onClose }: { sound: boolean; practice: boolean; onClose: () => void }) {
  useEffect(() => {
    const close = () => onClose();
    window.addEventListener("keydown", close, { once: true });
    return () => window.removeEventListener("keydown", close);
  }, [onClose]);
  const keys: Array<[string, string]> = [
    ["Space", "one cut"],
    ["0–9, Enter", "a reading"],
    ["P F D", "passes, fails, in doubt"],
    ["C G O I U", "lamp: clean, glint, roll, chip, burr"],
    ["Backspace", "take back the last"],
    ["X", "the last cut struck tape, a staple, a seam or the board"],
    ["N", "note"],
    ["B", "break"],
    ["S", "stop"],
    ["L", "list of events, corrections"],
    ["M", sound ? "sound off" : "sound on"],
    ...(practice ? ([["R", "reading from the virtual bench"]] as Array<[string, string]>) : []),
  ];
  return (
    <p className="mt-3 flex flex-wrap gap-x-6 gap-y-2 border-t border-line pt-3 text-ink-2">
      {keys.map(([key, does]) => (
        <span key={key}>
          <Kbd>{key}</Kbd> {does}
        </span>
      ))}
    </p>
  );
}
