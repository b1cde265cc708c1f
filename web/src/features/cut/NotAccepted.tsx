import { TextButton } from "../../ui/TextButton";
import type { Waiting } from "./bench";

/** What the server refused; it stays here until it was read. */
export function NotAccepted({
  refused,
  onUnderstood,
}: {
  refused: Waiting["refused"];
  onUnderstood: () => void;
}) {
  return refused.map(({ event, message }) => (
    <p key={event.id} role="alert" className="mt-1 font-semibold text-rust">
      Not accepted: {message}. <TextButton onClick={onUnderstood}>Understood</TextButton>
    </p>
  ));
}
