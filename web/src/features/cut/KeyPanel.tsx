import { useEffect, useState } from "react";
import { Kbd } from "../../ui/Kbd";
import { OnOff } from "../../ui/OnOff";
import { TextButton } from "../../ui/TextButton";
import { ACTIONS, type KeyChoice, withLetter, withPedal } from "./keyChoice";

/**
 * Keys can be changed or switched off, and a pedal learned: press what is to be set, then the key.
 */
export function KeyPanel({
  keys,
  onKeys,
  onClose,
}: {
  keys: KeyChoice;
  onKeys: (k: KeyChoice) => void;
  onClose: () => void;
}) {
  const [learning, setLearning] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  useEffect(() => {
    if (learning === null) return;
    const onKey = (event: KeyboardEvent) => {
      event.preventDefault();
      event.stopPropagation();
      setLearning(null);
      if (event.key === "Escape") return;
      const found =
        learning === "pedal" ? withPedal(keys, event.key) : withLetter(keys, learning, event.key);
      setWrong(typeof found === "string" ? found : null);
      if (typeof found !== "string") onKeys(found);
    };
    window.addEventListener("keydown", onKey, { capture: true });
    return () => window.removeEventListener("keydown", onKey, { capture: true });
  }, [learning, keys, onKeys]);
  const learn = (what: string) => {
    setWrong(null);
    setLearning(what);
  };
  const plain = "min-h-11 cursor-pointer rounded-edge border-[1.5px] px-3";
  return (
    <section aria-label="Keys and pedal" className="flex h-[372px] flex-col overflow-y-auto pt-2">
      <div className="flex flex-wrap items-center gap-2">
        <button
          type="button"
          className={`${plain} border-next font-semibold text-next`}
          onClick={() => learn("pedal")}
        >
          {learning === "pedal"
            ? "Press the pedal now"
            : keys.pedal
              ? "Learn another pedal"
              : "Learn the pedal"}
        </button>
        {keys.pedal ? (
          <span>
            pedal sends <Kbd>{keys.pedal}</Kbd>{" "}
            <TextButton onClick={() => onKeys({ ...keys, pedal: null })}>delete pedal</TextButton>
          </span>
        ) : null}
        <OnOff
          label="Letter keys"
          on={keys.lettersOn}
          onTurn={(lettersOn) => onKeys({ ...keys, lettersOn })}
        />
        <TextButton className="px-2" onClick={onClose}>
          Done
        </TextButton>
      </div>
      <p role="status" className="min-h-6 py-1 font-semibold text-rust">
        {wrong}
      </p>
      <ul className={`grid grid-cols-2 gap-x-4 ${keys.lettersOn ? "" : "text-ink-2"}`}>
        {ACTIONS.map((a) => (
          <li key={a.id}>
            <button
              type="button"
              disabled={!keys.lettersOn}
              aria-label={`${a.does}: ${keys.letters[a.id]}. Change its key`}
              className="flex min-h-11 w-full cursor-pointer items-center gap-3 text-left"
              onClick={() => learn(a.id)}
            >
              <Kbd>{learning === a.id ? "…" : (keys.letters[a.id] ?? "").toUpperCase()}</Kbd>
              {learning === a.id ? "press its new key" : a.does}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
