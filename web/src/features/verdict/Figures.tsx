import type { Schemas } from "../../api/client";
import { unbroken } from "../../domain/format";
import { Mark } from "../../ui/Mark";

const digits = (unit: string) => (unit === "gf" || unit === "%" ? 0 : 1);

function shown(figure: Schemas["FigureOut"] | undefined): string {
  if (!figure) return "";
  const sign = figure.name.startsWith("change") && figure.value > 0 ? "+" : "";
  return sign + figure.value.toFixed(digits(figure.unit));
}

/** What runs end with besides lives: readings after a dose, depth cut, effort by layers. */
export function Figures({ data }: { data: Schemas["AnswerOut"] }) {
  if (!data.figure_blades.length) return null;
  const names = [
    ...new Map(
      data.figure_blades.flatMap((b) => b.figures.map((f) => [f.name, f] as const)),
    ).values(),
  ];
  const { efforts } = data;
  const cell = "border-b border-line py-1.5 pr-3 text-left";
  return (
    <section aria-label="Figures">
      <table className="w-full border-collapse">
        <thead className="text-note text-ink-2">
          <tr>
            <th className={`${cell} font-medium`}>blade</th>
            {data.figure_blades.map((b) => (
              <th key={b.blade} scope="col" className={cell}>
                <span className="flex items-center gap-2 text-ink">
                  <Mark mark={b.mark} size={15} />
                  {b.blade}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {names.map((f) => (
            <tr key={f.name}>
              <th scope="row" className={`${cell} font-normal text-ink-2`}>
                {f.label}, {f.unit}
              </th>
              {data.figure_blades.map((b) => (
                <td key={b.blade} className={`${cell} font-bold`}>
                  {shown(b.figures.find((own) => own.name === f.name))}
                </td>
              ))}
            </tr>
          ))}
          {efforts?.layers.map((layers, i) => (
            <tr key={layers} className={layers === efforts.separates_at ? "bg-sheet" : ""}>
              <th scope="row" className={`${cell} font-normal text-ink-2`}>
                effort at {layers} {layers === 1 ? "layer" : "layers"}
              </th>
              {data.figure_blades.map((b) => (
                <td key={b.blade} className={`${cell} font-bold`}>
                  {efforts.by_blade[b.blade]?.[i]?.toFixed(1) ?? ""}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="mt-3 mb-4">
        {data.figure_comparisons.map((c) => (
          <li key={`${c.a}${c.b}${c.stage}`} className="mt-1">
            {unbroken(c.words)}
          </li>
        ))}
      </ul>
    </section>
  );
}
