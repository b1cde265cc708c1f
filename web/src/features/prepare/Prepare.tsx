import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { useChange } from "../../api/changes";
import { api, body, type Schemas } from "../../api/client";
import { lineUpQuery, quantitiesQuery, shelfQuery } from "../../api/queries";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { plural } from "../../domain/format";
import { newId } from "../../domain/ids";
import { fullCuts, stripEdges } from "../../domain/strips";
import { EdgeCard } from "../../parts/EdgeCard";
import { RecipeForm } from "../../parts/RecipeForm";
import { StepList } from "../../parts/StepList";
import { Button } from "../../ui/Button";
import { Choice, Option } from "../../ui/Choice";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Page } from "../../ui/Page";
import { Section } from "../../ui/Section";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting } from "../../ui/State";
import { Table, unseen } from "../../ui/Table";
import { Tick } from "../../ui/Tick";
import { EdgeRow } from "./EdgeRow";

type Blade = Schemas["BladeOut"];
const HEADS = [
  "blade",
  "edge",
  "angle, ° a side",
  "micro-bevel, °",
  "behind the edge, mm",
  "start, gf",
  "minutes",
  "burr",
  "lamp",
  unseen("more"),
];

/** Matched edges: one recipe on all blades in one act, then what each edge turned out to be. */
export function Prepare() {
  const { trialId = "" } = useParams();
  const lineUp = useQuery(lineUpQuery(trialId));
  const shelf = useQuery(shelfQuery);
  const quantities = useQuery(quantitiesQuery);
  const [opened, setOpened] = useState<string | null>(null);
  if (lineUp.isPending || shelf.isPending || quantities.isPending)
    return <Waiting what="the edges" />;
  if (lineUp.isError) return <Failed error={lineUp.error} onRetry={() => void lineUp.refetch()} />;
  if (shelf.isError) return <Failed error={shelf.error} onRetry={() => void shelf.refetch()} />;
  if (quantities.isError)
    return <Failed error={quantities.error} onRetry={() => void quantities.refetch()} />;
  const { blades, runs, trial } = lineUp.data;
  const cut = new Set(lineUp.data.used_up);
  const waiting = (blade: Blade) => blade.edges.slice(-1).find((e) => !cut.has(e.id) && !e.factory);
  const ready = blades.filter((b) => waiting(b));
  const bare = blades.filter((b) => !waiting(b));
  const openedBlade = blades.find((b) => waiting(b)?.id === opened);
  const openedEdge = openedBlade ? waiting(openedBlade) : undefined;
  return (
    <Page width="wide">
      <h1 className="answer max-w-4xl">
        {ready.length === 0
          ? `No edge is ready to cut: ${plural(bare.length, "blade")} to sharpen.`
          : bare.length === 0
            ? `${ready.length === 1 ? "The one blade has" : `All ${ready.length} blades have`} an ` +
              "edge that is ready to cut."
            : `${plural(ready.length, "edge")} ready to ` +
              `cut; ${plural(bare.length, "blade")} still to sharpen.`}
      </h1>
      <p className="mt-1 text-ink-2">
        Same steps, same strokes on all; {trial.settled_rule}. Measure each new edge again.
      </p>
      <MakeEdges
        trialId={trialId}
        blades={blades}
        bare={bare}
        runs={runs}
        usedUp={lineUp.data.used_up}
        recipes={shelf.data.recipes}
      />
      {ready.length ? (
        <Section title="Measured edges" className="mt-8">
          <div className="overflow-x-auto">
            <Table heads={HEADS} cell="px-1 py-1" className="mt-2 w-full" scrolls="Table of edges">
              {ready.map((blade) => {
                const edge = waiting(blade);
                return edge ? (
                  <EdgeRow
                    key={edge.id}
                    blade={blade}
                    edge={edge}
                    quantities={quantities.data}
                    recipe={shelf.data.recipes.find((r) => r.id === edge.recipe_id)}
                    onOpen={() => setOpened(edge.id)}
                  />
                ) : null;
              })}
            </Table>
          </div>
          <Note className="mt-2">
            Values are saved as measured here today when you leave the field. Thickness at stations:
            16: 0.36 48: 0.37. Several start readings: 142 150 147.
          </Note>
        </Section>
      ) : null}
      <Note className="mt-6">
        Hold the blade so that a slip goes away from the hand; grind wet or masked. Your own
        workshop's rules come first.
      </Note>
      <Sheet
        wide
        open={Boolean(openedEdge)}
        onOpenChange={(o) => (o ? null : setOpened(null))}
        title={`${openedBlade?.code ?? ""}, edge ${openedEdge?.number ?? ""}`}
      >
        {openedBlade && openedEdge ? (
          <EdgeCard
            bladeId={openedBlade.id}
            lengthMm={openedBlade.edge_length_mm}
            edge={openedEdge}
            standing={undefined}
            quantities={quantities.data}
            recipeName={shelf.data.recipes.find((r) => r.id === openedEdge.recipe_id)?.name}
          />
        ) : null}
      </Sheet>
    </Page>
  );
}

/** One recipe, and the blades it goes on. */
function MakeEdges({
  trialId,
  blades,
  bare,
  runs,
  usedUp,
  recipes,
}: {
  trialId: string;
  runs: Schemas["LineUpOut"]["runs"];
  usedUp: readonly string[];
  blades: readonly Blade[];
  bare: readonly Blade[];
  recipes: readonly Schemas["RecipeBody"][];
}) {
  const [recipeId, setRecipeId] = useState(recipes[0]?.id ?? "");
  const [left, setLeft] = useState<readonly string[]>([]);
  const [writing, setWriting] = useState(false);
  const recipe = recipes.find((r) => r.id === recipeId) ?? recipes[0];
  const chosen = bare.filter((b) => !left.includes(b.arm_id));
  const [ids] = useState(() => new Map<string, string>());
  const idFor = (armId: string) => {
    const known = ids.get(armId) ?? newId();
    ids.set(armId, known);
    return known;
  };
  const make = useChange(
    (sent: Schemas["PreparationBody"]) =>
      body(
        api.POST("/api/trials/{trial_id}/preparations", {
          params: { path: { trial_id: trialId } },
          body: sent,
        }),
      ),
    () => ids.clear(),
  );
  return (
    <section
      aria-label="Sharpen by a recipe"
      className="mt-5 grid gap-x-10 gap-y-4 bench:grid-cols-[1fr_1.2fr]"
    >
      <div>
        <div className="flex flex-wrap items-end gap-3">
          {recipes.length ? (
            <Choice label="Recipe" value={recipe?.id} onPick={(picked) => setRecipeId(picked)}>
              {recipes.map((r) => (
                <Option key={r.id} value={r.id}>
                  {r.name}
                </Option>
              ))}
            </Choice>
          ) : null}
          <Button kind="quiet" onClick={() => setWriting(true)}>
            Write a new one
          </Button>
        </div>
        {recipe ? (
          <StepList steps={recipe.steps} className="mt-3 border-l-4 border-hemp pl-8" />
        ) : (
          <p className="mt-2 text-ink-2">
            A recipe is an ordered list of steps; write the first one.
          </p>
        )}
      </div>
      <div>
        <ul>
          {blades.map((blade) => {
            const isBare = bare.includes(blade);
            const last = blade.edges.at(-1);
            return (
              <li key={blade.arm_id}>
                <Tick
                  disabled={!isBare}
                  checked={isBare && !left.includes(blade.arm_id)}
                  onTick={(on) =>
                    setLeft(on ? left.filter((id) => id !== blade.arm_id) : [...left, blade.arm_id])
                  }
                  label={
                    <span className="flex items-center gap-3">
                      <Mark mark={blade.mark} />
                      <b className="w-20">{blade.code}</b>
                      <EdgeStrip
                        mark={blade.mark}
                        title={blade.code}
                        edgeLengthMm={blade.edge_length_mm}
                        edges={stripEdges(runs, blade, usedUp)}
                        fullCuts={fullCuts(runs)}
                        width={220}
                      />
                      <span className="text-note text-ink-2">
                        {isBare ? `edge ${blade.next_edge} next` : `edge ${last?.number} ready`}
                      </span>
                    </span>
                  }
                />
              </li>
            );
          })}
        </ul>
        <Notice says={make.error?.message} />
        <Button
          kind={bare.length ? "next" : "plain"}
          className="mt-2"
          disabled={!recipe || chosen.length === 0 || make.isPending}
          onClick={() =>
            recipe
              ? make.mutate({
                  recipe_id: recipe.id,
                  edge_ids: Object.fromEntries(chosen.map((b) => [b.arm_id, idFor(b.arm_id)])),
                  zones: zonesLike(chosen),
                })
              : undefined
          }
        >
          Record the next edge of {plural(chosen.length, "blade")}
        </Button>
      </div>
      <Sheet wide open={writing} onOpenChange={setWriting} title="New recipe">
        <RecipeForm
          onDone={(id) => {
            setRecipeId(id);
            setWriting(false);
          }}
        />
      </Sheet>
    </section>
  );
}

/** The zones the last edges had, where all of them had the same. */
function zonesLike(blades: readonly Blade[]): Schemas["ZoneBody"][] {
  const all = blades.map((b) => b.edges.at(-1)?.zones ?? []);
  const first = all[0] ?? [];
  return all.every((zones) => JSON.stringify(zones) === JSON.stringify(first)) ? first : [];
}
