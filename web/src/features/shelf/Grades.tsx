import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { folderAddress } from "../../api/folder";
import { gradesQuery } from "../../api/queries";
import { Button, buttonLook } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting } from "../../ui/State";
import { Table } from "../../ui/Table";
import { BringGrades } from "./BringGrades";
import { GradeForm } from "./GradeForm";

type Grade = Schemas["GradeOut"];

const SHOWN_FIRST = ["C", "Cr", "Mo", "W", "V", "Co", "Mn", "N"];

/** The library of grades: what each promises, how it is made and usually hardened. */
export function Grades() {
  const found = useQuery(gradesQuery);
  const [search, setSearch] = useSearchParams();
  const [wanted, setWanted] = useState("");
  if (found.isPending) return <Waiting what="the grades" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const grades = found.data.grades.filter((grade) => matches(grade, wanted));
  const close = () => setSearch({ part: "grades" });
  return (
    <div className="pt-4">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <Field
          label="Find a grade, a standard or an element"
          value={wanted}
          onChange={(e) => setWanted(e.target.value)}
          className="w-80 max-w-full"
        />
        <span className="flex flex-wrap gap-3">
          <Link className={buttonLook("quiet")} to="/grades-alike">
            Grades XRF cannot separate
          </Link>
          <a className={buttonLook("quiet")} href={folderAddress("/api/grades.csv")} download>
            Export
          </a>
          <Button onClick={() => setSearch({ part: "grades", bring: "grades" })}>
            Import grades
          </Button>
          <Button onClick={() => setSearch({ part: "grades", new: "grade" })}>New grade</Button>
        </span>
      </div>
      <div className="mt-4">
        <Table
          scrolls="Grades"
          heads={["grade", "mass per cent, middle of each range", "usually hardened to", "source"]}
        >
          {grades.map((grade) => (
            <Row key={grade.name} grade={grade} />
          ))}
        </Table>
      </div>
      {grades.length === 0 ? <p className="mt-3 text-ink-2">No matches.</p> : null}
      <Sheet
        open={search.get("new") === "grade"}
        onOpenChange={(o) => (o ? null : close())}
        title="New grade"
        note="Your shelf may hold any name; the library uses standard designations."
      >
        <GradeForm grade={undefined} name={search.get("name") ?? ""} onDone={close} />
      </Sheet>
      <Sheet
        open={search.get("bring") === "grades"}
        onOpenChange={(o) => (o ? null : close())}
        title="Import grades"
        note="One row an element a grade (*.grades.csv), all of it or nothing."
      >
        <BringGrades />
      </Sheet>
    </div>
  );
}

function Row({ grade }: { grade: Grade }) {
  const low = grade.usual_low_hrc;
  return (
    <tr className="border-b border-line align-baseline">
      <th scope="row" className="py-1.5 pr-4 text-left whitespace-nowrap">
        <Link
          className="underline decoration-line underline-offset-4 hover:decoration-ink"
          to={`/grades/${encodeURIComponent(grade.name)}`}
        >
          {grade.name}
        </Link>
        <span className="cond ml-2 text-note font-normal text-ink-2">{grade.also?.[0]}</span>
      </th>
      <td className="pr-4 text-note">{shortly(grade)}</td>
      <td className="pr-4 whitespace-nowrap">
        {low == null ? (
          <span className="text-ink-2">not known</span>
        ) : (
          `${low} to ${grade.usual_high_hrc} HRC`
        )}
      </td>
      <td className="text-note text-ink-2">
        {[
          grade.own ? "yours" : "",
          grade.standard,
          grade.route === "ingot" ? "" : words(grade.route),
        ]
          .filter(Boolean)
          .join(", ")}
        {grade.is_recalled ? ", unconfirmed" : ""}
      </td>
    </tr>
  );
}

export function words(route: Grade["route"]): string {
  return (route ?? "").replace("_", "-");
}

function matches(grade: Grade, wanted: string): boolean {
  const text = [grade.name, ...(grade.also ?? []), grade.standard, grade.route]
    .join(" ")
    .toLowerCase();
  const elements = grade.ranges?.map((r) => r.element.toLowerCase()) ?? [];
  const word = wanted.trim().toLowerCase();
  return word === "" || text.includes(word) || elements.includes(word);
}

/** The elements that make a grade what it is. */
function shortly(grade: Grade): string {
  const told = SHOWN_FIRST.flatMap((element) => {
    const range = grade.ranges?.find((r) => r.element === element);
    if (!range?.low_percent) return [];
    const middle = (range.low_percent + (range.high_percent ?? range.low_percent)) / 2;
    return [`${element} ${Number(middle.toPrecision(3))}`];
  });
  return told.join(", ") || "not known";
}
