/** Files chosen from this device, CSV unless told otherwise. */
export function FilePick({
  label,
  onPick,
  isWrong = false,
  accept = ".csv,text/csv",
}: {
  label: string;
  onPick: (files: File[]) => void;
  isWrong?: boolean;
  accept?: string;
}) {
  return (
    <label className="flex flex-col gap-1">
      <span className="text-note font-medium text-ink-2">{label}</span>
      <input
        type="file"
        multiple
        accept={accept}
        onChange={(e) => onPick([...(e.target.files ?? [])])}
        aria-invalid={isWrong}
        className={`min-h-11 rounded-edge border-[1.5px] border-line bg-sheet p-2 file:mr-3
          file:min-h-8 file:cursor-pointer file:rounded-edge file:border file:border-ink
          file:px-3 file:font-semibold`}
      />
    </label>
  );
}
