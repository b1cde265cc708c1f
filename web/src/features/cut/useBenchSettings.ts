import { useState } from "react";
import { type KeyChoice, keepKeys, loadKeys } from "./keyChoice";
import { setSound, soundIsOn } from "./sound";

export type Panel = "chart" | "log" | "keys";
export type BenchSettings = ReturnType<typeof useBenchSettings>;

/** How this device likes its bench: its keys, its sound, and what stands beside the count. */
export function useBenchSettings() {
  const [panel, setPanel] = useState<Panel>("chart");
  const [keysOpen, setKeysOpen] = useState(false);
  const [keys, setKeys] = useState(loadKeys);
  const [sound, setSoundOn] = useState(soundIsOn);
  const turn = (to: Panel) => setPanel((before) => (before === to ? "chart" : to));
  return {
    panel,
    keysOpen,
    keys,
    sound,
    showChart: () => setPanel("chart"),
    closeHelp: () => setKeysOpen(false),
    changeKeys: (chosen: KeyChoice) => {
      keepKeys(chosen);
      setKeys(chosen);
    },
    actions: {
      list: () => turn("log"),
      keys: () => turn("keys"),
      help: () => setKeysOpen(true),
      sound: () => {
        setSound(!sound);
        setSoundOn(!sound);
      },
    },
  };
}
