import type { Schemas } from "../../api/client";

export type Rust = Schemas["RustOut"];

/** The map of a measurement, as numbers a screen can colour: a pixel has strength, kind, before. */
export interface RustMap {
  readonly width: number;
  readonly height: number;
  readonly codes: Uint8ClampedArray;
}

const STAIN = 1;
const DOUBT = 2;
const COLOURS = {
  rust: [214, 40, 20, 190],
  fresh: [255, 196, 0, 215],
  stain: [40, 110, 190, 130],
  doubt: [150, 60, 190, 170],
} as const;

/** Read the map out of its picture. */
export async function readMap(rust: Rust): Promise<RustMap> {
  const image = new Image();
  image.src = rust.map_png;
  await image.decode();
  const canvas = document.createElement("canvas");
  canvas.width = image.naturalWidth;
  canvas.height = image.naturalHeight;
  const pen = canvas.getContext("2d", { willReadFrequently: true });
  if (!pen) throw new Error("this browser cannot draw");
  pen.drawImage(image, 0, 0);
  const { data, width, height } = pen.getImageData(0, 0, canvas.width, canvas.height);
  return { width, height, codes: data };
}

/** Colour the map where it says rust at a threshold; what is new since the look before by itself. */
export function paint(map: RustMap, threshold: number, canvas: HTMLCanvasElement) {
  canvas.width = map.width;
  canvas.height = map.height;
  const pen = canvas.getContext("2d");
  if (!pen) return;
  const sheet = pen.createImageData(map.width, map.height);
  const { codes } = map;
  const hasBefore = codes.some((code, i) => i % 4 === 2 && code > 0);
  for (let i = 0; i < codes.length; i += 4) {
    const colour = colourOf(codes, i, threshold, hasBefore);
    if (colour) sheet.data.set(colour, i);
  }
  pen.putImageData(sheet, 0, 0);
}

function colourOf(codes: Uint8ClampedArray, i: number, threshold: number, hasBefore: boolean) {
  if ((codes[i] ?? 0) > threshold * 255) {
    return hasBefore && codes[i + 2] === 0 ? COLOURS.fresh : COLOURS.rust;
  }
  const kind = codes[i + 1];
  if (kind === STAIN) return COLOURS.stain;
  return kind === DOUBT ? COLOURS.doubt : null;
}

/** The area at a place of the slider, as the server counted it. */
export function areaAt(rust: Rust, threshold: number): number {
  const away = (each: { threshold: number }) => Math.abs(each.threshold - threshold);
  const [best] = [...rust.by_threshold].sort((a, b) => away(a) - away(b));
  return best?.percent ?? 0;
}
