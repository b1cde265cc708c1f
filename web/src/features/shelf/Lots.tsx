import { useQuery } from "@tanstack/react-query";
import { lotKindsQuery, lotsQuery } from "../../api/queries";
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
      <section aria-label="Lots">
        <h2 className="text-lead font-bold">On hand</h2>
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
          <details className="mt-4">
            <summary className="min-h-11 cursor-pointer font-semibold">
              Used up ({away.length})
            </summary>
            <ul>
              {away.map((lot) => (
                <OneLot key={lot.id} lot={lot} />
              ))}
            </ul>
          </details>
        ) : null}
      </section>
      <NewLot kinds={kinds.data} />
    </div>
  );
}
