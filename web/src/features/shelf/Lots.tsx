import { useQuery } from "@tanstack/react-query";
import { lotKindsQuery, lotsQuery } from "../../api/queries";
import { Fold } from "../../ui/Fold";
import { Section } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { NewLot } from "./NewLot";
import { OneLot } from "./OneLot";

/** Every delivery with what was taken of it by the runs, and what is left. */
export function Lots() {
  const lots = useQuery(lotsQuery);
  const kinds = useQuery(lotKindsQuery);
  if (lots.isPending || kinds.isPending) return <Waiting what="the lots" />;
  if (lots.isError) return <Failed error={lots.error} onRetry={() => void lots.refetch()} />;
  if (kinds.isError) return <Failed error={kinds.error} onRetry={() => void kinds.refetch()} />;
  const here = lots.data.filter((lot) => !lot.archived);
  const away = lots.data.filter((lot) => lot.archived);
  return (
    <div className="grid gap-x-12 gap-y-8 pt-4 bench:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <Section title="On hand">
        {here.length ? null : (
          <p className="mt-1 text-ink-2">
            Enter what you bought; runs then subtract what they use.
          </p>
        )}
        <ul className="mt-1">
          {here.map((lot) => (
            <OneLot key={lot.id} lot={lot} />
          ))}
        </ul>
        {away.length ? (
          <Fold title={`Used up (${away.length})`} className="mt-4">
            <ul>
              {away.map((lot) => (
                <OneLot key={lot.id} lot={lot} />
              ))}
            </ul>
          </Fold>
        ) : null}
      </Section>
      <NewLot kinds={kinds.data} />
    </div>
  );
}
