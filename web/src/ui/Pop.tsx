import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { Tip } from "./Tip";

/** Something to change, in place: a Radix popover at the thing itself. */
export function Pop({
  open,
  onOpenChange,
  trigger,
  tip = "",
  children,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  trigger: ReactNode;
  /** What is said of it before it is opened. */
  tip?: string;
  children: ReactNode;
}) {
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Tip says={tip}>
        <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      </Tip>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          collisionPadding={12}
          className={`z-30 max-h-(--radix-popover-content-available-height) w-80 overflow-y-auto
            rounded-edge border-[1.5px] border-ink bg-paper p-4 shadow-[4px_4px_0_var(--line)]`}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
