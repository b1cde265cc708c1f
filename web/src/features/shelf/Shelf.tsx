import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { folderAddress } from "../../api/folder";
import { quantitiesQuery, shelfQuery } from "../../api/queries";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { plural } from "../../domain/format";
import { shown } from "../../domain/quantities";
import { stripEdges } from "../../domain/strips";
import { labelOf } from "../../domain/words";
import { RecipeForm } from "../../parts/RecipeForm";
import { StepList } from "../../parts/StepList";
import { Button, buttonLook } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Mark } from "../../ui/Mark";
import { Page } from "../../ui/Page";
import { Heading } from "../../ui/Section";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting } from "../../ui/State";
import { TextButton } from "../../ui/TextButton";
import { Abrasives } from "./Abrasives";
import { Grades } from "./Grades";
import { Instruments } from "./Instruments";
import { Lots } from "./Lots";
import { NewBlade } from "./NewBlade";

const PARTS = ["blades", "lots", "recipes", "abrasives", "grades", "instruments"] as const;
type Part = (typeof PARTS)[number];

/**
 * What stands on the shelf: blades first, then what they are sharpened with and how their grades
 * are hardened.
 */
export function Shelf() {
  const shelf = useQuery(shelfQuery);
  const quantities = useQuery(quantitiesQuery);
  const [search, setSearch] = useSearchParams();
  const part = PARTS.find((p) => p === search.get("part")) ?? "blades";
  if (shelf.isPending || quantities.isPending) return <Waiting what="the shelf" />;
  if (shelf.isError) return <Failed error={shelf.error} onRetry={() => void shelf.refetch()} />;
  if (quantities.isError)
    return <Failed error={quantities.error} onRetry={() => void quantities.refetch()} />;
  const { data } = shelf;
  const out = data.blades.filter(({ blade }) => blade.loan_due && !blade.loan_returned).length;
  const here = data.blades.filter(({ blade }) => !blade.archived_utc).length;
  const close = () => setSearch(part === "blades" ? {} : { part });
  return (
    <Page>
      <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-4">
        <h1 className="answer">
          {here === 0
            ? "The shelf is empty."
            : `${plural(here, "blade")} on the shelf${out ? `, ${out} of them on loan` : ""}.`}
        </h1>
        <div className="flex flex-wrap gap-3">
          {here ? (
            <a className={buttonLook()} href={folderAddress("/api/shelf/files")} download>
              Export blades and edges
            </a>
          ) : null}
          <Link className={buttonLook()} to="/?new=import">
            Import blades
          </Link>
          <Button kind={here === 0 ? "next" : "plain"} onClick={() => setSearch({ new: "blade" })}>
            New blade
          </Button>
        </div>
      </div>
      <nav
        aria-label="Parts of the shelf"
        className="mt-4 flex flex-wrap border-b-[1.5px] border-ink"
      >
        {PARTS.map((name) => (
          <Link
            key={name}
            to={name === "blades" ? "/shelf" : `/shelf?part=${name}`}
            aria-current={name === part ? "page" : undefined}
            className={`min-h-11 px-5 pt-2.5 font-semibold
              ${name === part ? "bg-ink text-paper" : "hover:bg-sheet"}`}
          >
            {name[0]?.toUpperCase()}
            {name.slice(1)}
          </Link>
        ))}
      </nav>
      <PartOfShelf part={part} shelf={data} quantities={quantities.data} />
      <Sheet
        open={search.get("new") === "blade"}
        onOpenChange={(o) => (o ? null : close())}
        title="New blade"
        note="Only its code is needed; the rest is measured or asked for later."
      >
        <NewBlade />
      </Sheet>
      <Sheet
        wide
        open={search.get("new") === "recipe" || search.get("recipe") !== null}
        onOpenChange={(o) => (o ? null : close())}
        title={search.get("recipe") ? "Edit recipe" : "New recipe"}
      >
        <RecipeForm
          recipe={data.recipes.find((r) => r.id === search.get("recipe"))}
          onDone={close}
        />
      </Sheet>
    </Page>
  );
}

function PartOfShelf({
  part,
  shelf,
  quantities,
}: {
  part: Part;
  shelf: Schemas["ShelfOut"];
  quantities: Schemas["QuantityOut"][];
}) {
  if (part === "lots") return <Lots />;
  if (part === "instruments") return <Instruments />;
  if (part === "recipes") return <Recipes recipes={shelf.recipes} />;
  if (part === "abrasives") return <Abrasives shelf={shelf} />;
  if (part === "grades") return <Grades />;
  const away = shelf.blades.filter(({ blade }) => blade.archived_utc);
  return (
    <>
      <BladeList
        shelved={shelf.blades.filter(({ blade }) => !blade.archived_utc)}
        quantities={quantities}
      />
      {away.length ? (
        <Fold title={`Archived (${away.length})`} className="mt-6">
          <BladeList shelved={away} quantities={quantities} />
        </Fold>
      ) : null}
    </>
  );
}

function BladeList({
  shelved,
  quantities,
}: {
  shelved: Schemas["ShelvedOut"][];
  quantities: Schemas["QuantityOut"][];
}) {
  const hardness = quantities.find((q) => q.name === "hardness_hrc");
  if (shelved.length === 0)
    return (
      <p className="pt-4 text-ink-2">
        Add a blade with “New blade”, or import a *.blades.csv file.
      </p>
    );
  return (
    <ul>
      {shelved.map(({ blade, runs, waiting }) => (
        <li key={blade.id} className="border-b border-line">
          <Link
            to={`/blades/${blade.id}`}
            className={`grid grid-cols-[2rem_1fr] items-center gap-x-4 py-2 hover:bg-sheet
              bench:grid-cols-[2rem_9rem_1fr_17rem]`}
          >
            <Mark mark={blade.mark} size={26} />
            <span className="leading-tight">
              <b className="text-lead">{blade.code}</b>
              <span className="block text-note text-ink-2">
                {blade.claimed_grade ?? "steel not named"}
              </span>
            </span>
            <EdgeStrip
              mark={blade.mark}
              title={blade.code}
              edgeLengthMm={blade.edge_length_mm}
              edges={waiting ? stripEdges([], blade) : []}
              width={540}
            />
            <span className="col-span-2 leading-tight bench:col-span-1">
              {hardness && blade.hardness_hrc !== null
                ? shown(blade.hardness_hrc, hardness)
                : "hardness not known"}
              {blade.hardness_standing && blade.hardness_standing !== "measured_here" ? (
                <span className="text-ink-2"> {labelOf("standings", blade.hardness_standing)}</span>
              ) : null}
              <span className="block text-note text-ink-2">
                {[
                  plural(blade.edges.length, "edge"),
                  plural(runs, "run"),
                  blade.loan_says,
                  blade.origin,
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </span>
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

function Recipes({ recipes }: { recipes: Schemas["RecipeBody"][] }) {
  const [, setSearch] = useSearchParams();
  return (
    <div className="pt-4">
      {recipes.map((r) => (
        <section key={r.id} className="mb-5" aria-label={r.name}>
          <Heading className="flex items-baseline gap-4">
            {r.name}
            <TextButton
              small
              className="font-semibold"
              onClick={() => setSearch({ part: "recipes", recipe: r.id })}
            >
              change
            </TextButton>
          </Heading>
          <StepList steps={r.steps} className="pl-6" />
          {r.note ? <p className="text-note text-ink-2">{r.note}</p> : null}
        </section>
      ))}
      {recipes.length === 0 ? (
        <p className="mb-3 text-ink-2">
          A recipe is an ordered list of steps, used again for every blade of a trial.
        </p>
      ) : null}
      <Button onClick={() => setSearch({ part: "recipes", new: "recipe" })}>New recipe</Button>
    </div>
  );
}
