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
          <ClimateCourse readings={climate} whole={soak.whole_h} width={Math.min(width, 900)} />
        </div>
      ) : null}
    </Section>
  );
}
