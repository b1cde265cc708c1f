import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

/**
 * A sheet laid over the bench: a Radix dialog that comes from the right edge, full width on a
 * phone.
 */
export function Sheet({
  open,
  onOpenChange,
  title,
  note,
  wide = false,
  children,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  note?: string;
  /** For what needs a table's room. */
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          className={`fixed inset-y-0 right-0 z-30 w-full ${wide ? "max-w-5xl" : "max-w-xl"}
            overflow-y-auto border-l-[1.5px] border-ink bg-paper px-7 py-6`}
          {...(note ? {} : { "aria-describedby": undefined })}
        >
          <div className="flex items-start justify-between gap-6">
            <Dialog.Title className="answer">{title}</Dialog.Title>
            <Dialog.Close
              className={`min-h-11 cursor-pointer px-2 font-semibold underline
              decoration-line underline-offset-4`}
            >
              Close
            </Dialog.Close>
          </div>
          {note ? (
            <Dialog.Description className="mt-2 text-ink-2">{note}</Dialog.Description>
          ) : null}
          <div className="mt-5">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
