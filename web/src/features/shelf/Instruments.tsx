import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { useFollow } from "../../api/follow";
import { instrumentsQuery } from "../../api/queries";
import { Note } from "../../ui/Note";
import { Failed, Waiting } from "../../ui/State";
import { InstrumentRow } from "./InstrumentRow";
import type { News } from "./instrumentKinds";
import { NewInstrument } from "./NewInstrument";
import { WaitingShots } from "./WaitingShots";

/**
 * What readings, pictures and taps come from: where it is plugged in, whether it is there, and how
 * true it reads.
 */
export function Instruments() {
  const instruments = useQuery(instrumentsQuery);
  const queries = useQueryClient();
  const [latest, setLatest] = useState<Record<string, News>>({});
  useFollow(
    () => "/api/instruments/follow",
    ({ instrument }) => {
      if (!instrument) return;
      setLatest((known) => ({ ...known, [instrument.instrument_id]: instrument }));
      if (instrument.what === "result") void queries.invalidateQueries({ queryKey: ["shots"] });
      if (instrument.what === "there" || instrument.what === "lost")
        void queries.invalidateQueries({ queryKey: ["instruments"] });
    },
  );
  if (instruments.isPending) return <Waiting what="the instruments" />;
  if (instruments.isError)
    return <Failed error={instruments.error} onRetry={() => void instruments.refetch()} />;
  return (
    <div className="grid gap-x-12 gap-y-8 pt-4 bench:grid-cols-[minmax(0,1fr)_21rem]">
      <section aria-label="Your instruments">
        {instruments.data.length === 0 ? (
          <p className="text-ink-2">
            None is named yet. Readings can always be typed; an instrument that is connected here
            sends them to the bench. Practice runs have the virtual bench.
          </p>
        ) : null}
        <ul>
          {instruments.data.map((each) => (
            <InstrumentRow key={each.id} instrument={each} news={latest[each.id]} />
          ))}
        </ul>
        <WaitingShots />
      </section>
      <div>
        <NewInstrument />
        <p className="mt-6 border-t border-line pt-4">
          Pair a phone under{" "}
          <Link className="font-semibold underline underline-offset-4" to="/devices">
            Devices
          </Link>
          .
        </p>
        <Note className="mt-3">
          An XRF analyser is a radiation source: only for those licensed or trained for it, under
          the local rules, and never with the sample held by hand.
        </Note>
      </div>
    </div>
  );
}
