import { LongField } from "../../ui/Field";
import { ChecksPart } from "./ChecksPart";
import { CutPart } from "./CutPart";
import { EndsPart } from "./EndsPart";
import { type PartProps, textOf } from "./fields";
import { Part } from "./Part";
import { StagesPart } from "./StagesPart";

/**
 * Everything a method says, in the order of the bench: what is cut, how it is checked, what ends
 * it.
 */
export function MethodForm(props: PartProps) {
  return (
    <div className="flex flex-col gap-7">
      <CutPart {...props} />
      <ChecksPart {...props} />
      <StagesPart {...props} />
      <EndsPart {...props} />
      <Part title="At the bench">
        <div className="grid gap-3 bench:grid-cols-2">
          <LongField label="A cut is spoiled when" {...textOf(props, "spoiled")} />
          <LongField
            label="Safety notes, one a line"
            {...textOf(props, "cautions")}
            hint="Your workshop's own rules come first."
          />
          <LongField
            className="bench:col-span-2"
            label="Note for whoever reads the result"
            {...textOf(props, "note")}
          />
        </div>
      </Part>
    </div>
  );
}
