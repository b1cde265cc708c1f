import { Popover } from "radix-ui";
import type { ReactNode } from "react";

/** Something to change, in place: a Radix popover at the thing itself. */
export function Pop({
  open,
  onOpenChange,
  trigger,
  children,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  trigger: ReactNode;
  children: ReactNode;
}) {
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          collisionPadding={12}
          className="z-30 max-h-(--radix-popover-content-available-height) w-80 overflow-y-auto rounded-edge border-[1.5px] border-ink bg-paper p-4 shadow-[4px_4px_0_var(--line)]"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
