import { putInstrument, putInstrumentAway, useChange } from "../../api/changes";
import { ReferenceTrail } from "../../charts/ReferenceTrail";
import { day } from "../../domain/format";
import { labelOf } from "../../domain/words";
import { Note } from "../../ui/Note";
import { TextButton } from "../../ui/TextButton";
import { INSTRUMENT_KINDS, type Instrument, type News } from "./instrumentKinds";
import { ReferenceCheck } from "./ReferenceCheck";

/** An instrument: whether it is there, how true it reads, and the day's check. */
export function InstrumentRow({
  instrument,
  news,
}: {
  instrument: Instrument;
  news: News | undefined;
}) {
  const away = useChange(putInstrumentAway);
  const save = useChange(putInstrument);
  const kind = INSTRUMENT_KINDS[instrument.kind];
  const means = instrument.checks.map(
    (c) => c.readings.reduce((sum, r) => sum + r, 0) / c.readings.length,
  );
  const last = instrument.checks.at(-1);
  const { checks, checked_today, drift, is_there, last_text, unit, ...kept } = instrument;
  return (
    <li className="border-b border-line py-4" data-testid={`instrument-${instrument.name}`}>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <b className="text-lead">{instrument.name}</b>
        <span className="text-ink-2">{labelOf("instruments", instrument.kind)}</span>
        <span
          role="status"
          className={`font-semibold
            ${!instrument.in_use ? "text-ink-2" : is_there ? "text-next" : "text-rust"}`}
        >
          {!instrument.in_use ? "unplugged" : is_there ? "there" : "not found"}
        </span>
        <span className="ml-auto flex gap-4 text-note">
          <TextButton onClick={() => save.mutate({ ...kept, in_use: !instrument.in_use })}>
            {instrument.in_use ? "Unplug" : "Connect"}
          </TextButton>
          <TextButton onClick={() => away.mutate(instrument.id)}>Archive</TextButton>
        </span>
      </div>
      <Note>
        {instrument.address}
        {kind.reads ? `, ${instrument.range_low} to ${instrument.range_high} ${unit}` : ""}
        {news?.text ? ` · ${news.text}` : last_text ? ` · ${last_text}` : ""}
      </Note>
      {kind.reads ? (
        <div className="mt-3 flex flex-wrap items-start gap-x-8 gap-y-3">
          <div>
            <ReferenceTrail title={`${instrument.name} on its reference`} means={means} />
            <p
              className={`mt-1 max-w-80 text-note
                ${drift?.warns ? "font-semibold text-rust" : "text-ink-2"}`}
            >
              {last
                ? `Checked ${day(last.made_utc)}${last.reference ? ` on ${last.reference}` : ""}; `
                : ""}
              {drift
                ? drift.words
                : last
                  ? "the next check shows whether it drifts"
                  : "Never checked on a reference"}
              .{last && !checked_today ? " Not checked today." : ""}
            </p>
          </div>
          <ReferenceCheck instrument={instrument} news={news} />
        </div>
      ) : null}
    </li>
  );
}
