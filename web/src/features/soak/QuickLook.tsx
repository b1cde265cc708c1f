import type { Refused, Schemas } from "../../api/client";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Heading, Section } from "../../ui/Section";
import { useForm } from "../../ui/useForm";
import { Grades } from "./Grades";
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
      <Grades busy={busy} onGrade={(grade) => onKeep({ grade })} />
      <div className="flex flex-col gap-6">
        <Spots refused={refused} busy={busy} onKeep={onKeep} />
        <Typed seen={seen} refused={refused} onSeen={onSeen} onUnread={onUnread} />
      </div>
    </div>
  );
}

const SPOTS = {
  count: { needed: "say how many" },
  size_mm: { needed: "say how large" },
  side_cm2: { needed: "say of how much" },
} as const;

function Spots({
  refused,
  busy,
  onKeep,
}: {
  refused: Refused | null;
  busy: boolean;
  onKeep: Keep;
}) {
  const form = useForm({
    kinds: SPOTS,
    start: { count: "", size_mm: "1", side_cm2: "22" },
    error: refused,
  });
  return (
    <form
      aria-label="By spots"
      noValidate
      onSubmit={form.onSubmit((read) => {
        const count = Math.round(read.count);
        onKeep({ spots: { ...read, count }, pits: count });
      })}
    >
      <Heading>Or spots, counted</Heading>
      <div className="mt-1 grid grid-cols-3 gap-2">
        <Field label="Number" {...form.field("count")} />
        <Field label="Across" unit="mm" {...form.field("size_mm")} />
        <Field label="Side" unit="cm²" {...form.field("side_cm2")} />
      </div>
      <Button type="submit" className="mt-2" disabled={busy}>
        Save spots
      </Button>
    </form>
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
    <Section title="Area measured elsewhere">
      <div className="mt-1 grid grid-cols-3 gap-2">
        <Field label="Minimum" unit="%" {...field("rust_low")} />
        <Field label="Rusted" unit="%" {...field("rust_percent")} />
        <Field label="Maximum" unit="%" {...field("rust_high")} />
      </div>
    </Section>
  );
}

function Shades({ seen, busy, onKeep }: { seen: Seen; busy: boolean; onKeep: Keep }) {
  return (
    <Section title="Discolouration">
      <Note>A separate scale: it does not measure rust.</Note>
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
    </Section>
  );
}
