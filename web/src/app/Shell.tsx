import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from "react-router";
import type { Schemas } from "../api/client";
import { lineUpQuery } from "../api/queries";
import { plural } from "../domain/format";
import { PracticeStrip } from "../parts/PracticeStrip";
import { Kbd } from "../ui/Kbd";
import { PageSafe } from "../ui/PageSafe";
import { CommandLine } from "./CommandLine";
import { KeyList } from "./KeyList";
import { type PlaceKey, useKeys } from "./keys";

const PLACES = [
  ["/", "Today"],
  ["/standings", "Standings"],
  ["/choice", "Choice"],
  ["/soak", "Soak"],
  ["/assay", "Assay"],
  ["/shelf", "Shelf"],
  ["/reckoner", "Reckoner"],
] as const;

/** The frame of every place but the bench: the path of the open trial on top, the places below. */
export function Shell() {
  const { trialId } = useParams();
  const navigate = useNavigate();
  const [commanding, setCommanding] = useState(false);
  const [listing, setListing] = useState(false);
  const trial = useQuery({ ...lineUpQuery(trialId ?? ""), enabled: Boolean(trialId) });
  const step = trial.data?.next_step;
  const keys: PlaceKey[] = [
    { key: "/", does: "Search pages and actions", run: () => setCommanding(true) },
    { key: "?", does: "Show these keys", run: () => setListing(true) },
    { key: "t", does: "Go to Today", run: () => navigate("/") },
    { key: "w", does: "Go to the standings", run: () => navigate("/standings") },
    { key: "u", does: "Choose a blade for a use", run: () => navigate("/choice") },
    { key: "g", does: "Open the guide", run: () => navigate("/guide") },
    { key: "s", does: "Go to the shelf", run: () => navigate("/shelf") },
    { key: "o", does: "Go to the soaks", run: () => navigate("/soak") },
    { key: "a", does: "Go to the assay", run: () => navigate("/assay") },
    { key: "d", does: "Pair a phone or another device", run: () => navigate("/devices") },
    { key: "r", does: "Go to the reckoner", run: () => navigate("/reckoner") },
    ...(trialId
      ? [
          {
            key: "l",
            does: "Line-up of this trial",
            run: () => navigate(`/trials/${trialId}/line-up`),
          },
          { key: "n", does: "Plan of this trial", run: () => navigate(`/trials/${trialId}/plan`) },
          {
            key: "p",
            does: "Prepare edges for this trial",
            run: () => navigate(`/trials/${trialId}/prepare`),
          },
          {
            key: "v",
            does: "Verdict of this trial",
            run: () => navigate(`/trials/${trialId}/verdict`),
          },
          {
            key: "e",
            does: "Record of this trial: entries, results on paper",
            run: () => navigate(`/trials/${trialId}/record`),
          },
        ]
      : []),
    ...(trialId && step
      ? [{ key: "c", does: step.says, run: () => navigate(cutAddress(trialId, step)) }]
      : []),
  ];
  useKeys(keys);
  return (
    <div className="flex min-h-dvh flex-col">
      <header
        className={`flex print:hidden flex-wrap items-stretch border-b-[1.5px] border-ink
        pl-4 bench:pl-7`}
      >
        <Link to="/" className="wide flex min-h-14 items-center pr-6 text-[1.06rem] font-extrabold">
          Kessik
        </Link>
        {trialId && trial.data ? (
          <>
            <p className="min-w-0 flex-1 self-center pr-4 leading-tight font-semibold">
              {trial.data.trial.name}
              <span className="cond block truncate text-note font-normal text-ink-2">
                what varies: {trial.data.trial.factor.replace("_", " ")}
                {trial.data.trial.medium ? ` · ${trial.data.trial.medium}` : ""}
              </span>
            </p>
            <TrialPath trialId={trialId} lineUp={trial.data} />
          </>
        ) : null}
      </header>
      <PracticeStrip />
      <main className="flex-1 pb-16">
        <PageSafe>
          <Outlet />
        </PageSafe>
      </main>
      <footer
        className={`print:hidden fixed inset-x-0 bottom-0 z-10 flex h-11 items-center gap-2 bench:gap-8
        border-t border-line bg-paper px-3 text-note text-ink-2 bench:px-7`}
      >
        <nav aria-label="Places" className="flex min-w-0 gap-2.5 overflow-x-auto bench:gap-8">
          {PLACES.map(([to, name]) => (
            <NavLink
              key={to}
              to={to}
              end={to === "/"}
              className={`flex min-h-11 items-center font-semibold text-ink underline
                decoration-transparent underline-offset-4 hover:decoration-ink
                aria-[current=page]:decoration-ink aria-[current=page]:decoration-2`}
            >
              {name}
            </NavLink>
          ))}
        </nav>
        <Link
          to="/guide"
          className="ml-auto flex min-h-11 items-center gap-2 px-2 text-note max-bench:hidden"
        >
          <Kbd>g</Kbd> guide
        </Link>
        <button
          type="button"
          className="flex max-bench:ml-auto min-h-11 cursor-pointer items-center gap-2"
          onClick={() => setCommanding(true)}
        >
          <Kbd>/</Kbd> <span className="max-bench:sr-only">search</span>
        </button>
        <button
          type="button"
          className="flex min-h-11 cursor-pointer items-center gap-2"
          onClick={() => setListing(true)}
        >
          <Kbd>?</Kbd> <span className="max-bench:sr-only">keys</span>
        </button>
      </footer>
      <CommandLine open={commanding} onOpenChange={setCommanding} keys={keys} />
      <KeyList open={listing} onOpenChange={setListing} keys={keys} />
    </div>
  );
}

type LineUp = Schemas["LineUpOut"];

function cutAddress(trialId: string, step: LineUp["next_step"]): string {
  if (step.kind === "go_on" && step.run_id) return `/runs/${step.run_id}`;
  if (step.kind === "read_verdict") return `/trials/${trialId}/verdict`;
  return `/trials/${trialId}/line-up?start=${encodeURIComponent(step.arm_id ?? "")}`;
}

/** The path of the work, left to right: what is done, where you are, and what is next. */
function TrialPath({ trialId, lineUp }: { trialId: string; lineUp: LineUp }) {
  const { pathname } = useLocation();
  const counted = lineUp.runs.filter((r) => !r.practice);
  const ended = counted.filter((r) => r.status === "stopped").length;
  const wanted = Math.max(lineUp.blades.length * lineUp.trial.edges_per_blade, 1);
  const each = lineUp.blades.some((b) => b.arm) ? "arm" : "blade";
  const steps = [
    {
      name: "Line-up",
      to: `/trials/${trialId}/line-up`,
      done: lineUp.blades.length >= 2,
      says: plural(lineUp.blades.length, each),
    },
    {
      name: "Plan",
      to: `/trials/${trialId}/plan`,
      done: counted.length > 0,
      says: `${plural(lineUp.trial.edges_per_blade, "edge")} ${each === "arm" ? "an" : "a"} ${each}`,
    },
    {
      name: "Cut",
      to: cutAddress(trialId, lineUp.next_step),
      done: ended >= wanted,
      says: ended > wanted ? plural(ended, "run") : `${ended} of ${plural(wanted, "run")}`,
    },
    {
      name: "Verdict",
      to: `/trials/${trialId}/verdict`,
      done: false,
      says: ended === 0 ? "nothing yet" : ended >= wanted ? "complete" : "so far",
    },
  ];
  const next = steps.findIndex((s) => !s.done);
  return (
    <nav
      aria-label="The path of this trial"
      className="flex w-full border-line max-bench:border-t bench:w-auto"
    >
      {steps.map((step, i) => {
        const here =
          (step.name === "Line-up" && pathname.endsWith("/prepare")) ||
          (step.name === "Plan" && pathname.endsWith("/method")) ||
          (step.name === "Cut" && /\/(paper|record)$/.test(pathname)) ||
          (step.name !== "Cut" && pathname === step.to.split("?")[0]);
        return (
          <Link
            key={step.name}
            to={step.to}
            aria-current={here ? "step" : undefined}
            className={`flex min-h-14 flex-1 flex-col justify-center border-l border-line px-2.5
              leading-tight bench:min-w-28 bench:px-5
              ${here ? "bg-ink text-paper" : "hover:bg-sheet"}`}
          >
            <span className="flex items-center gap-2 font-semibold whitespace-nowrap">
              <PathDot done={step.done} next={i === next} here={here} />
              {step.name}
            </span>
            <span className={`cond text-note ${here ? "opacity-80" : "text-ink-2"}`}>
              {step.says}
            </span>
          </Link>
        );
      })}
    </nav>
  );
}

function PathDot({ done, next, here }: { done: boolean; next: boolean; here: boolean }) {
  const stroke = here ? "var(--paper)" : next ? "var(--next)" : "var(--ink-2)";
  return (
    <svg
      width="14"
      height="14"
      viewBox="0 0 14 14"
      role="img"
      aria-label={done ? "done" : next ? "next" : "later"}
    >
      {done ? (
        <path d="M1,8L5,12L13,2" fill="none" stroke={stroke} strokeWidth="2.2" />
      ) : next ? (
        <path d="M2,2L12,7L2,12Z" fill={stroke} />
      ) : (
        <circle cx="7" cy="7" r="4" fill="none" stroke={stroke} strokeWidth="1.6" />
      )}
    </svg>
  );
}
