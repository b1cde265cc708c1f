import { useQuery } from "@tanstack/react-query";
import { gaugeStudyQuery } from "../../api/gauge";
import { ChartFrame } from "../../charts/ChartFrame";
import { GaugeChart } from "../../charts/GaugeChart";
import { Note } from "../../ui/Note";
import { Heading } from "../../ui/Section";
import { Table } from "../../ui/Table";
import { useWidth } from "../../ui/useWidth";
import { readingsOf, type Study } from "./study";

const CELL = "py-1 pr-4";

/** What the readings say so far: in sentences, by component, and by part and operator. */
export function Found({ study }: { study: Study }) {
  const readings = readingsOf(study.rows);
  const found = useQuery({
    ...gaugeStudyQuery({ readings, unit: study.unit }),
    enabled: readings.length > 1,
  });
  const { ref, width } = useWidth<HTMLDivElement>(640);
  if (readings.length < 2)
    return <p className="text-ink-2">Type two readings or more; the answer follows.</p>;
  if (found.isError) return <p role="status">{found.error.message}.</p>;
  if (!found.data) return <p className="text-ink-2">Reckoning …</p>;
  const { sentences, notes, components, means } = found.data;
  const marks = new Map([...new Set(means.map((m) => m.operator))].map((name, at) => [name, at]));
  return (
    <section aria-label="What the readings say">
      {sentences.map((line, at) => (
        <p key={line} className={at ? "mt-1" : "text-lead font-bold"}>
          {line}
        </p>
      ))}
      {notes.map((line) => (
        <Note key={line} className="mt-1">
          {line}
        </Note>
      ))}
      <div ref={ref} className="mt-5">
        <ChartFrame
          name="Means by part and operator"
          caption="Each operator's mean of each part. Lines that run apart are hands that differ; lines that cross read parts differently."
          series={[...marks].map(([name, mark]) => ({ name, mark }))}
          numbers={{
            heads: ["part", "operator", `mean, ${study.unit}`],
            rows: means.map((m) => [m.part, m.operator, String(Number(m.mean.toPrecision(6)))]),
          }}
        >
          {({ hidden }) => (
            <GaugeChart
              means={means.filter((m) => !hidden.has(m.operator))}
              marks={marks}
              unit={study.unit}
              width={width}
            />
          )}
        </ChartFrame>
      </div>
      <Heading className="mt-5">Where the variance comes from</Heading>
      <Table
        scrolls="Components of the gauge study"
        heads={["source", `standard deviation, ${study.unit}`, "95 % interval", "% of variance"]}
      >
        {components.map((each) => (
          <tr key={each.name} className="border-b border-line">
            <th scope="row" className={`${CELL} text-left font-semibold`}>
              {each.name}
            </th>
            <td className={CELL}>{each.sd}</td>
            <td className={CELL}>{each.interval}</td>
            <td className={CELL}>{each.percent}</td>
          </tr>
        ))}
      </Table>
    </section>
  );
}
