import { Field } from "../../ui/Field";
import type { Measuring } from "./pictureTools";
import { useNumbers } from "./useNumbers";

/** How long the line is that was drawn between two presses. */
export function ScaleLength({
  measuring,
  onChange,
}: {
  measuring: Measuring;
  onChange: (measuring: Measuring) => void;
}) {
  const { scale } = measuring;
  const number = useNumbers({ length_mm: scale?.length_mm ?? null }, null, ({ length_mm }) => {
    if (scale && length_mm) onChange({ ...measuring, scale: { ...scale, length_mm } });
  });
  return (
    <Field
      label="Length between the two"
      unit="mm"
      className="mt-2 max-w-48"
      {...number("length_mm")}
    />
  );
}
