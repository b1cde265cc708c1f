const SVG = "http://www.w3.org/2000/svg";
const LOOKS = ["fill", "stroke", "font-size", "font-weight", "font-family", "font-stretch"];
const LINE_PX = 18;
const LETTER_PX = 6.6;
const MARGIN_PX = 12;
const SHARPNESS = 2;

/** A chart as it is shown, of one drawing or several, with its caption, as an SVG that stands alone. */
export async function svgOf(chart: HTMLElement, caption: string): Promise<string> {
  const drawings = [...chart.querySelectorAll("svg")];
  const left = chart.getBoundingClientRect();
  const placed = drawings.map((drawing) => {
    const { x, y, width, height } = drawing.getBoundingClientRect();
    return { drawing, x: x - left.x, y: y - left.y, width, height };
  });
  const width = Math.ceil(Math.max(...placed.map((each) => each.x + each.width)));
  const height = Math.ceil(Math.max(...placed.map((each) => each.y + each.height)));
  const lines = wrapped(caption, Math.floor((width - 2 * MARGIN_PX) / LETTER_PX));
  const whole = height + LINE_PX * lines.length + MARGIN_PX;
  const page = made("svg", { width, height: whole, viewBox: `0 0 ${width} ${whole}` });
  page.setAttribute("xmlns", SVG);
  const { backgroundColor, color, fontFamily } = getComputedStyle(document.body);
  const style = made("style", {});
  style.textContent = await fontFace();
  page.append(
    style,
    made("rect", { width, height: whole, fill: backgroundColor }),
    ...placed.map(({ drawing, x, y }) => {
      const copy = withLooks(drawing);
      copy.setAttribute("x", String(x));
      copy.setAttribute("y", String(y));
      return copy;
    }),
    ...lines.map((line, at) => {
      const y = height + LINE_PX * (at + 1) - 4;
      const text = made("text", { x: MARGIN_PX, y, fill: color, "font-size": 13 });
      text.setAttribute("font-family", fontFamily);
      text.textContent = line;
      return text;
    }),
  );
  return new XMLSerializer().serializeToString(page);
}

/** The same as a PNG. */
export async function pngOf(chart: HTMLElement, caption: string): Promise<Blob> {
  const text = await svgOf(chart, caption);
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  const canvas = document.createElement("canvas");
  canvas.width = SHARPNESS * image.width;
  canvas.height = SHARPNESS * image.height;
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((done, failed) =>
    canvas.toBlob((blob) => (blob ? done(blob) : failed(new Error("no picture was made")))),
  );
}

/** Words in lines of at most so many letters. */
export function wrapped(text: string, letters: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + word.length < letters)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

function made(name: string, attributes: Record<string, string | number>): SVGElement {
  const element = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, String(value));
  return element;
}

/** A copy whose colours and letters no longer come from the page. */
function withLooks(chart: SVGSVGElement): SVGSVGElement {
  const copy = chart.cloneNode(true) as SVGSVGElement;
  const copies = [copy, ...copy.querySelectorAll("*")];
  for (const [at, shown] of [chart, ...chart.querySelectorAll("*")].entries()) {
    const style = getComputedStyle(shown);
    const own = copies[at];
    own?.removeAttribute("class");
    for (const look of LOOKS) own?.setAttribute(look, style.getPropertyValue(look));
  }
  return copy;
}

/** The page's typeface, so that the picture is set in it anywhere. */
async function fontFace(): Promise<string> {
  const rules = [...document.styleSheets].flatMap((sheet) => [...sheet.cssRules]);
  const face = rules.find((rule) => rule instanceof CSSFontFaceRule) as CSSFontFaceRule | undefined;
  const address = face && /url\("?([^")]+)"?\)/.exec(face.style.getPropertyValue("src"))?.[1];
  if (!face || !address) return "";
  const base = face.parentStyleSheet?.href ?? document.baseURI;
  const bytes = new Uint8Array(await (await fetch(new URL(address, base))).arrayBuffer());
  const coded = btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(""));
  return face.cssText.replace(/url\([^)]+\)/, `url("data:font/woff2;base64,${coded}")`);
}
