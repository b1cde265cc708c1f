import { useQuery } from "@tanstack/react-query";
import { amongQuery } from "../../api/queries";
import { Section } from "../../ui/Section";

/** Where the steels of this soak stand among those of earlier ones, through what they share. */
export function Among({ soakId }: { soakId: string }) {
  const found = useQuery(amongQuery(soakId));
  if (!found.data?.says.length) return null;
  return (
    <Section title="Among other soaks" className="mt-8">
      <ul className="flex max-w-3xl flex-col gap-1">
        {found.data.says.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </Section>
  );
}
