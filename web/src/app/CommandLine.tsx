import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { shelfQuery, todayQuery } from "../api/queries";
import { findQuery } from "../api/record";
import { GUIDE_INDEX } from "../domain/guideIndex.gen";
import { labelOf } from "../domain/words";
import { Sheet } from "../ui/Sheet";
import type { PlaceKey } from "./keys";

type Found = Schemas["FoundOut"];
function addressOf({ kind, id }: Found): string {
  return {
    trial: `/trials/${id}/verdict`,
    blade: `/blades/${id}`,
    grade: `/grades/${encodeURIComponent(id)}`,
    lot: "/shelf?part=lots",
    soak: `/soak/${id}`,
    note: `/trials/${id}/record`,
  }[kind];
}

interface Command {
  readonly says: string;
  readonly run: () => void;
}

/** One line to find a trial or do what this place offers: type, arrow, Enter. */
export function CommandLine({
  open,
  onOpenChange,
  keys,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  keys: readonly PlaceKey[];
}) {
  const navigate = useNavigate();
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState(0);
  const today = useQuery({ ...todayQuery, enabled: open });
  const shelf = useQuery({ ...shelfQuery, enabled: open });
  const more = useQuery({ ...findQuery(text.trim()), enabled: open && text.trim().length > 1 });
  const commands: Command[] = [
    ...keys.filter((k) => k.key !== "/").map((k) => ({ says: k.does, run: k.run })),
    { says: "New blade", run: () => navigate("/shelf?new=blade") },
    { says: "New trial", run: () => navigate("/?new=trial") },
    { says: "Guided practice: try it in five minutes", run: () => navigate("/?new=practice") },
    { says: "Import a series", run: () => navigate("/?new=import") },
    { says: "Results from a spreadsheet", run: () => navigate("/sheets") },
    { says: "Which way of testing suits my question?", run: () => navigate("/ways") },
    ...GUIDE_INDEX.map(({ slug, title }) => ({
      says: `Guide: ${title}`,
      run: () => navigate(`/guide/${slug}`),
    })),
    { says: "Trainers: count, foresee, read rust, call it", run: () => navigate("/trainers") },
    { says: "Gauge study: how good is my tester?", run: () => navigate("/gauge") },
    { says: "The bin", run: () => navigate("/bin") },
    { says: "Backups", run: () => navigate("/backups") },
    { says: "Send trials, or bring a package in", run: () => navigate("/share") },
    ...(today.data?.trials ?? []).flatMap(({ trial }) => [
      { says: `${trial.name}: line-up`, run: () => navigate(`/trials/${trial.id}/line-up`) },
      { says: `${trial.name}: verdict`, run: () => navigate(`/trials/${trial.id}/verdict`) },
    ]),
  ];
  commands.push(
    ...(shelf.data?.blades ?? []).map(({ blade }) => ({
      says: ["Blade", blade.code, blade.claimed_grade, blade.origin, blade.note]
        .filter(Boolean)
        .join(" "),
      run: () => navigate(`/blades/${blade.id}`),
    })),
  );
  commands.push(
    ...(more.data ?? [])
      .filter((each) => each.kind !== "trial" && each.kind !== "blade")
      .map((each) => ({
        says: `${labelOf("found", each.kind)} ${each.name}${each.says ? `: ${each.says}` : ""}`,
        run: () => navigate(addressOf(each)),
      })),
  );
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = commands.filter((c) => words.every((w) => c.says.toLowerCase().includes(w)));
  const close = () => {
    onOpenChange(false);
    setText("");
    setChosen(0);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      const step = event.key === "ArrowDown" ? 1 : -1;
      setChosen((c) => (found.length ? (c + step + found.length) % found.length : 0));
    } else if (event.key === "Enter") {
      event.preventDefault();
      const command = found[chosen];
      if (command) {
        close();
        command.run();
      }
    }
  };
  return (
    <Sheet open={open} onOpenChange={(o) => (o ? onOpenChange(true) : close())} title="Search">
      <input
        // biome-ignore lint/a11y/noAutofocus: the line was just asked for
        autoFocus
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setChosen(0);
        }}
        onKeyDown={onKeyDown}
        aria-label="Search pages and actions"
        aria-controls="commands"
        className="min-h-12 w-full rounded-edge border-[1.5px] border-ink bg-sheet px-3 text-lead"
      />
      <ul id="commands" className="mt-3">
        {found.map((c, i) => (
          <li key={c.says}>
            <button
              type="button"
              className={`min-h-11 w-full cursor-pointer px-3 text-left
                ${i === chosen ? "bg-ink text-paper" : "hover:bg-sheet"}`}
              onClick={() => {
                close();
                c.run();
              }}
            >
              {c.says}
            </button>
          </li>
        ))}
        {found.length === 0 ? <li className="px-3 py-2 text-ink-2">No matches.</li> : null}
      </ul>
    </Sheet>
  );
}
