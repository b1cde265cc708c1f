const KEY = "kessik-sound";
let context: AudioContext | undefined;

export function soundIsOn(): boolean {
  return localStorage.getItem(KEY) !== "off";
}

export function setSound(on: boolean): void {
  localStorage.setItem(KEY, on ? "on" : "off");
}

/** A short double tone: a check is due, so the eye can stay on the blade. */
export function checkTone(): void {
  if (!soundIsOn() || typeof AudioContext === "undefined") return;
  context ??= new AudioContext();
  const start = context.currentTime;
  for (const [at, pitch] of [
    [0, 660],
    [0.14, 880],
  ] as const) {
    const tone = context.createOscillator();
    const gain = context.createGain();
    tone.frequency.value = pitch;
    gain.gain.setValueAtTime(0.12, start + at);
    gain.gain.exponentialRampToValueAtTime(0.001, start + at + 0.12);
    tone.connect(gain).connect(context.destination);
    tone.start(start + at);
    tone.stop(start + at + 0.13);
  }
}
