import { Toast } from "radix-ui";
import { createContext, type ReactNode, useCallback, useContext, useState } from "react";
import { Button } from "./Button";

interface Message {
  readonly says: string;
  readonly undo?: (() => void) | undefined;
}

const Offer = createContext<(says: string, undo?: () => void) => void>(() => undefined);

/** Say what was done, and offer to undo for a while. */
export const useUndo = () => useContext(Offer);

const STAYS_MS = 10_000;

/** Where messages that offer an undo appear. */
export function UndoMessages({ children }: { children: ReactNode }) {
  const [message, setMessage] = useState<Message | null>(null);
  const offer = useCallback((says: string, undo?: () => void) => setMessage({ says, undo }), []);
  return (
    <Offer.Provider value={offer}>
      <Toast.Provider duration={STAYS_MS} label="Done">
        {children}
        {message ? (
          <Toast.Root
            key={message.says}
            onOpenChange={(open) => (open ? undefined : setMessage(null))}
            className={`flex items-center gap-4 rounded-edge border-[1.5px] border-ink bg-paper
              py-1 pr-1 pl-4 shadow-[4px_4px_0_var(--line)]`}
          >
            <Toast.Description className="py-1.5">{message.says}</Toast.Description>
            {message.undo ? (
              <Toast.Action altText="Take it back on its page" asChild>
                <Button onClick={message.undo}>Undo</Button>
              </Toast.Action>
            ) : (
              <Toast.Close asChild>
                <Button kind="quiet">Close</Button>
              </Toast.Close>
            )}
          </Toast.Root>
        ) : null}
        <Toast.Viewport className="fixed bottom-4 left-1/2 z-50 -translate-x-1/2" />
      </Toast.Provider>
    </Offer.Provider>
  );
}
