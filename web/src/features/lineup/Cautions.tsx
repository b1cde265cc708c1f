import { useState } from "react";
import { useChange } from "../../api/changes";
import { api, body, type Schemas } from "../../api/client";

/**
 * What can hurt here, said once and calmly; read once, it is put away for this trial and can be
 * brought back.
 */
export function Cautions({ trial }: { trial: Schemas["TrialOut"] }) {
  const [open, setOpen] = useState(false);
  const put = useChange((seen: boolean) =>
    body(
      api.PUT("/api/trials/{trial_id}/cautions", {
        params: { path: { trial_id: trial.id } },
        body: { seen },
      }),
    ),
  );
  const link = "min-h-11 cursor-pointer text-note font-semibold underline underline-offset-4";
  if (trial.cautions_seen && !open)
    return (
      <button type="button" className={`${link} self-start`} onClick={() => setOpen(true)}>
        Cautions for this trial
      </button>
    );
  return (
    <section aria-label="Cautions" className="border-l-4 border-hemp pl-3 text-note">
      <ul>
        {[
          ...trial.method.all_cautions,
          "Count the blades at the start and at the end of the day.",
        ].map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
      <p className="text-ink-2">Your own workshop's rules come first.</p>
      <button
        type="button"
        className={link}
        onClick={() => {
          setOpen(false);
          if (!trial.cautions_seen) put.mutate(true);
        }}
      >
        {trial.cautions_seen ? "Hide" : "Read; not again for this trial"}
      </button>
    </section>
  );
}
