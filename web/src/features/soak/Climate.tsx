import { ChartFrame } from "../../charts/ChartFrame";
import { ClimateCourse } from "../../charts/ClimateCourse";
import { Section } from "../../ui/Section";
import { useWidth } from "../../ui/useWidth";
import type { Soak } from "./soak";

/** Temperature and humidity along the hours, where they were measured. */
export function Climate({ soak }: { soak: Soak }) {
  const { ref, width } = useWidth<HTMLDivElement>(900);
  const { climate, climate_says } = soak.answer;
  if (climate.length === 0) return null;
  return (
    <Section title="Temperature and humidity" className="mt-8">
      <p>{climate_says}</p>
      {climate.length > 1 ? (
        <div ref={ref}>
          <ChartFrame
            name={`Temperature and humidity, ${soak.name}`}
            caption="Full line: temperature, left. Dashed: relative humidity, right."
            whole={[0, Math.max(soak.whole_h, 1)]}
            numbers={{
              heads: ["h", "°C", "relative humidity, %"],
              rows: climate.map((each) => [
                each.hours.toFixed(1),
                String(each.temperature_c ?? ""),
                String(each.humidity_percent ?? ""),
              ]),
            }}
          >
            {({ span }) => (
              <ClimateCourse readings={climate} span={span} width={Math.min(width, 900)} />
            )}
          </ChartFrame>
        </div>
      ) : null}
    </Section>
  );
}
