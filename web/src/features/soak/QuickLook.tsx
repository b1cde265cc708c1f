import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Refused, Schemas } from "../../api/client";
import { soakGradesQuery } from "../../api/queries";
import { useKeys } from "../../app/keys";
import { typedNumber } from "../../domain/format";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Kbd } from "../../ui/Kbd";
import type { Seen } from "./seen";
import { useNumbers } from "./useNumbers";

type Keep = (more: Partial<Schemas["LookBody"]>) => void;

/** A look without a camera: one key for a grade, spots by count and size, or an area typed. */
export function QuickLook({
  isPaste,
  seen,
  refused,
  busy,
  onSeen,
  onUnread,
  onKeep,
}: {
  isPaste: boolean;
  seen: Seen;
  refused: Refused | null;
  busy: boolean;
  onSeen: (seen: Seen) => void;
  onUnread: (isUnread: boolean) => void;
  onKeep: Keep;
}) {
  if (isPaste) return <Shades seen={seen} busy={busy} onKeep={onKeep} />;
  return (
    <div className="grid gap-x-10 gap-y-6 bench:grid-cols-[minmax(0,1fr)_340px]">
      <Grades busy={busy} onKeep={onKeep} />
      <div className="flex flex-col gap-6">
        <Spots refused={refused} busy={busy} onKeep={onKeep} />
        <Typed seen={seen} refused={refused} onSeen={onSeen} onUnread={onUnread} />
      </div>
    </div>
  );
}

function Grades({ busy, onKeep }: { busy: boolean; onKeep: Keep }) {
  const grades = useQuery(soakGradesQuery);
  const all = grades.data ?? [];
  useKeys(
    all.map((each) => ({
      key: each.grade === 10 ? "c" : String(each.grade),
      does: `Grade ${each.grade}: ${each.looks_like}`,
      run: () => onKeep({ grade: each.grade }),
    })),
  );
  return (
    <section aria-label="By grade">
      <h2 className="text-lead font-bold">How much of this side has rusted</h2>
      <p className="text-note text-ink-2">
        Grades of ISO 10289, made for coatings. One key saves the look and opens the next.
      </p>
      <ul className="mt-2">
        {all.map((each) => (
          <li key={each.grade}>
            <button
              type="button"
              disabled={busy}
              onClick={() => onKeep({ grade: each.grade })}
              className="grid min-h-11 w-full cursor-pointer grid-cols-[3rem_3.5rem_1fr_auto]
                items-center gap-3 border-t border-line text-left hover:bg-kraft/40"
            >
              <span>
                <Kbd>{each.grade === 10 ? "c" : each.grade}</Kbd>
              </span>
              <span className="font-semibold">{each.grade}</span>
              <span>{each.looks_like}</span>
              <span className="text-note text-ink-2">
                {each.grade === 10 ? "0" : `${each.above_percent} to ${each.up_to_percent}`} %
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Spots({
  refused,
  busy,
  onKeep,
}: {
  refused: Refused | null;
  busy: boolean;
  onKeep: Keep;
}) {
  const [typed, setTyped] = useState({ count: "", size: "1", side: "22" });
  const count = typedNumber(typed.count);
  const size = typedNumber(typed.size);
  const side = typedNumber(typed.side);
  const field = (name: keyof typeof typed) => ({
    value: typed[name],
    inputMode: "decimal" as const,
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
  });
  return (
    <section aria-label="By spots">
      <h2 className="text-lead font-bold">Or spots, counted</h2>
      <div className="mt-1 grid grid-cols-3 gap-2">
        <Field label="How many" {...field("count")} error={refused?.at("count")} />
        <Field label="Across" unit="mm" {...field("size")} error={refused?.at("size_mm")} />
        <Field label="Side" unit="cm²" {...field("side")} error={refused?.at("side_cm2")} />
      </div>
      <Button
        className="mt-2"
        disabled={busy || count === null || count === undefined || !size || !side}
        onClick={() =>
          onKeep({
            spots: { count: Math.round(count ?? 0), size_mm: size ?? 1, side_cm2: side ?? 20 },
            pits: Math.round(count ?? 0),
          })
        }
      >
        Save spots
      </Button>
    </section>
  );
}

function Typed({
  seen,
  refused,
  onSeen,
  onUnread,
}: {
  seen: Seen;
  refused: Refused | null;
  onSeen: (seen: Seen) => void;
  onUnread: (isUnread: boolean) => void;
}) {
  const { rust_low, rust_percent, rust_high } = seen;
  const field = useNumbers({ rust_low, rust_percent, rust_high }, refused, (values, isUnread) => {
    const best = values.rust_percent;
    onSeen({
      ...seen,
      rust_percent: best,
      rust_low: values.rust_low ?? best,
      rust_high: values.rust_high ?? best,
      how: "typed",
    });
    onUnread(isUnread);
  });
  return (
    <section aria-label="By area">
      <h2 className="text-lead font-bold">Or an area measured elsewhere</h2>
      <div className="mt-1 grid grid-cols-3 gap-2">
        <Field label="Least" unit="%" {...field("rust_low")} />
        <Field label="Rusted" unit="%" {...field("rust_percent")} />
        <Field label="Most" unit="%" {...field("rust_high")} />
      </div>
    </section>
  );
}

function Shades({ seen, busy, onKeep }: { seen: Seen; busy: boolean; onKeep: Keep }) {
  return (
    <section aria-label="By discolouration">
      <h2 className="text-lead font-bold">How far it discoloured</h2>
      <p className="text-note text-ink-2">A separate scale: it does not measure rust.</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {WORDS.discolourations.map(([value, name]) => (
          <Button
            key={value}
            kind={seen.discolouration === value ? "next" : "plain"}
            disabled={busy}
            onClick={() => onKeep({ discolouration: value })}
          >
            {name}
          </Button>
        ))}
      </div>
    </section>
  );
}
