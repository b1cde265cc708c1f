import { Kbd } from "../ui/Kbd";
import { Sheet } from "../ui/Sheet";
import type { PlaceKey } from "./keys";

/** The keys of this place. */
export function KeyList({
  open,
  onOpenChange,
  keys,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  keys: readonly PlaceKey[];
}) {
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Keys here"
      note="Tab moves to everything else; Enter presses it."
    >
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-5 gap-y-3">
        {keys.map((k) => (
          <div key={k.key} className="contents">
            <dt>
              <Kbd>{k.key.toUpperCase()}</Kbd>
            </dt>
            <dd>{k.does}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}
