import { useEffect } from "react";
import { Kbd } from "../../ui/Kbd";
import type { KeyChoice } from "./keyChoice";

/** The keys of the bench in one line, until the next key. */
export function KeyLine({
  keys,
  sound,
  isVirtual,
  onClose,
}: {
  keys: KeyChoice;
  sound: boolean;
  isVirtual: boolean;
  onClose: () => void;
}) {
  useEffect(() => {
    const close = () => onClose();
    window.addEventListener("keydown", close, { once: true });
    return () => window.removeEventListener("keydown", close);
  }, [onClose]);
  const of = (...ids: string[]) =>
    ids.map((id) => (keys.letters[id] ?? "").toUpperCase()).join(" ");
  const fixed: Array<[string, string]> = [
    [keys.pedal ? `Space, ${keys.pedal}` : "Space", "one cut"],
    ["0–9, Enter", "a reading; 212/208 for two"],
    ["Backspace", "undo the last"],
  ];
  const letters: Array<[string, string]> = [
    [of("pass", "fail", "doubt"), "passes, fails, in doubt"],
    [of("clean", "glint", "roll", "chip", "burr"), "lamp: clean, glint, roll, chip, burr"],
    [of("spoiled"), "the last cut struck tape, a staple, a seam or the board"],
    [of("pieces"), "5 whole pieces at once, or as many as typed before"],
    [of("other"), "the other blade, where they take turns layer by layer"],
    [of("note"), "note"],
    [of("break"), "break"],
    [of("stop"), "stop"],
    [of("list"), "list of events, corrections"],
    [of("takeover"), "count on this device"],
    [of("accept"), "accept the cuts of the other device"],
    [of("sound"), sound ? "sound off" : "sound on"],
    [of("keys"), "change keys, learn a pedal"],
    ...(isVirtual
      ? ([[of("read"), "reading from the virtual bench"]] as Array<[string, string]>)
      : []),
  ];
  return (
    <p className="mt-3 flex flex-wrap gap-x-6 gap-y-2 border-t border-line pt-3 text-ink-2">
      {[...fixed, ...(keys.lettersOn ? letters : [])].map(([key, does]) => (
        <span key={key}>
          <Kbd>{key}</Kbd> {does}
        </span>
      ))}
    </p>
  );
}
