import type { ReactNode } from "react";
import { Button } from "./Button";
import { Notice } from "./Notice";

/** The end of a form: what went wrong at no field, the button that saves, and one that leaves. */
export function FormFoot({
  form,
  isSaid = false,
  isSaving,
  disabled = false,
  autoFocus = false,
  onCancel,
  className = "",
  children = "Save",
}: {
  /** Read only here, after the fields: what stands at one of them is not said again. */
  form: { readonly notice: string | undefined };
  /** What went wrong is said at a field of the caller's own. */
  isSaid?: boolean;
  isSaving: boolean;
  disabled?: boolean;
  autoFocus?: boolean;
  onCancel?: () => void;
  className?: string;
  children?: ReactNode;
}) {
  return (
    <div className={`flex flex-col gap-3 ${className}`}>
      <Notice says={isSaid ? undefined : form.notice} />
      <div className="flex gap-3">
        <Button kind="next" type="submit" disabled={isSaving || disabled} autoFocus={autoFocus}>
          {children}
        </Button>
        {onCancel ? (
          <Button kind="quiet" onClick={onCancel}>
            Cancel
          </Button>
        ) : null}
      </div>
    </div>
  );
}
