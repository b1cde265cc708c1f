import { useState } from "react";
import { useChange } from "../../api/changes";
import { api, body, type Schemas } from "../../api/client";
import { day } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Notice } from "../../ui/Notice";
import { Section } from "../../ui/Section";

/** Codes for blades, so that nobody at the bench knows which is which until all is cut. */
export function Blind({ found, trialId }: { found: Schemas["TrialPlanOut"]; trialId: string }) {
  const [sure, setSure] = useState(false);
  const change = useChange(
    (covered: boolean) =>
      body(
        api.PUT("/api/trials/{trial_id}/covered", {
          params: { path: { trial_id: trialId } },
          body: { covered, seed: Math.floor(Math.random() * 2 ** 31) },
        }),
      ),
    () => setSure(false),
  );
  return (
    <Section title="Blind" className="print:hidden">
      {found.is_blind ? (
        <>
          <p>
            The bench shows codes; comparison, forecasts and later checks stay hidden until the
            codes are revealed.
          </p>
          <Fold title="Key for the person who codes the blades" className="mt-1">
            <p>
              {Object.entries(found.codes)
                .map(([code, blind]) => `${code} is ${blind}`)
                .join(", ")}
              . Cover marks and logos, and do not show this to whoever cuts.
            </p>
          </Fold>
          {sure ? (
            <p className="flex flex-wrap items-center gap-3">
              Revealing cannot be undone.
              <Button kind="danger" onClick={() => change.mutate(false)}>
                Reveal codes
              </Button>
              <Button kind="quiet" onClick={() => setSure(false)}>
                Keep hidden
              </Button>
            </p>
          ) : (
            <Button onClick={() => setSure(true)}>Reveal codes …</Button>
          )}
        </>
      ) : found.unblinded_utc ? (
        <p>Cut blind; codes revealed on {day(found.unblinded_utc)}.</p>
      ) : (
        <>
          <p className="text-ink-2">
            Whoever knows the blade cuts differently. Codes can replace the blades until all is cut.
          </p>
          <Button className="mt-2" onClick={() => change.mutate(true)} disabled={change.isPending}>
            Cut blind
          </Button>
        </>
      )}
      <Notice says={change.error?.message} className="mt-1" />
    </Section>
  );
}
