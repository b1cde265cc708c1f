import { Tooltip } from "radix-ui";
import type { ReactNode } from "react";

/** What something means, said when it is pointed at or reached by keyboard. */
export function Tip({ says, children }: { says: string; children: ReactNode }) {
  if (!says) return children;
  return (
    <Tooltip.Provider delayDuration={300}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={4}
            collisionPadding={12}
            className={`z-40 max-w-80 rounded-edge border-[1.5px] border-ink bg-paper px-3 py-2
              text-note shadow-[4px_4px_0_var(--line)]`}
          >
            {says}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
