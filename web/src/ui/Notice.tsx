/** What went wrong at no field in particular, beside the button that was pressed. */
export function Notice({ says, className = "" }: { says: string | undefined; className?: string }) {
  return says ? (
    <p role="alert" className={`text-rust ${className}`}>
      {says}
    </p>
  ) : null;
}
