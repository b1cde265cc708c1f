import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { folderAddress } from "../../api/folder";
import { laidOutQuery, passQuery } from "../../api/queries";
import { gradeBlind } from "../../api/soaks";
import { newId } from "../../domain/ids";
import { labelOf } from "../../domain/words";
import { Button, buttonLook } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Fold } from "../../ui/Fold";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Page } from "../../ui/Page";
import { Failed, Waiting } from "../../ui/State";
import { Grades } from "./Grades";
import { lastRater, rememberRater } from "./rater";

/** The sides of a round graded again: in an order that tells nothing, without names or grades. */
export function BlindPage() {
  const { soakId = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const passId = search.get("pass") ?? "";
  const [rater, setRater] = useState(lastRater);
  const begin = () => {
    rememberRater(rater);
    setSearch({ pass: newId() });
  };
  return (
    <Page>
      <h1 className="answer">Grade again without names</h1>
      {passId ? (
        <Pass key={passId} soakId={soakId} passId={passId} rater={rater} onAgain={begin} />
      ) : (
        <div className="mt-4 flex max-w-xl flex-col gap-4">
          <p>
            Every side of the last round once more, shuffled, without its name and without what was
            seen before. How far the grades lie apart is what a grade by eye is worth.
          </p>
          <Field
            label="Inspected by"
            value={rater}
            onChange={(event) => setRater(event.target.value)}
          />
          <span>
            <Button kind="next" onClick={begin}>
              Begin
            </Button>
          </span>
        </div>
      )}
      <Link className={`${buttonLook("quiet")} mt-6`} to={`/soak/${soakId}`}>
        Back to the soak
      </Link>
    </Page>
  );
}

function Pass({
  soakId,
  passId,
  rater,
  onAgain,
}: {
  soakId: string;
  passId: string;
  rater: string;
  onAgain: () => void;
}) {
  const found = useQuery(passQuery(soakId, passId));
  const save = useChange(({ number, grade }: { number: number; grade: number }) =>
    gradeBlind(soakId, passId, number, { grade, seen_by: rater }),
  );
  if (found.isPending) return <Waiting what="the sides" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const { places } = found.data;
  const here = places.find((place) => !place.is_done);
  if (!here) return <Over pass={found.data} onAgain={onAgain} />;
  return (
    <>
      <p className="mt-1 text-ink-2">
        Number {here.number} of {places.length}, {labelOf("inspectionStages", here.stage)}
      </p>
      <div className="mt-4 grid gap-x-10 gap-y-6 bench:grid-cols-[minmax(0,1fr)_440px]">
        <div>
          {here.has_picture ? (
            <img
              src={folderAddress(`/api/soaks/${soakId}/passes/${passId}/${here.number}/picture`)}
              alt={`Side number ${here.number}`}
              className="w-full"
            />
          ) : (
            <p>Take the coupon that lies at number {here.number}.</p>
          )}
          {places.some((place) => !place.has_picture) ? (
            <LaidOut soakId={soakId} passId={passId} />
          ) : null}
        </div>
        <Grades
          busy={save.isPending || found.isFetching}
          onGrade={(grade) => save.mutate({ number: here.number, grade })}
        />
      </div>
      <Notice says={save.error?.message} className="mt-3 font-medium" />
    </>
  );
}

function Over({ pass, onAgain }: { pass: Schemas["BlindPassOut"]; onAgain: () => void }) {
  return (
    <div role="status" className="mt-4 flex max-w-2xl flex-col gap-3">
      <p>All {pass.places.length} sides are graded.</p>
      <ul className="flex flex-col gap-1">
        {pass.agreements.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {pass.agreements.length === 0 ? (
        <p>No side was graded by eye before, so nothing is compared yet: grade once more.</p>
      ) : null}
      <span>
        <Button onClick={onAgain}>Grade once more</Button>
      </span>
    </div>
  );
}

/** For whoever lays the coupons out; the rater does not open it. */
function LaidOut({ soakId, passId }: { soakId: string; passId: string }) {
  return (
    <Fold title="For whoever lays them out: which lies at which number" className="mt-6">
      <Names soakId={soakId} passId={passId} />
      <Note className="mt-2">Whoever grades does not look.</Note>
    </Fold>
  );
}

function Names({ soakId, passId }: { soakId: string; passId: string }) {
  const names = useQuery(laidOutQuery(soakId, passId));
  return (
    <ol className="columns-2">
      {(names.data ?? []).map(({ number, name }) => (
        <li key={number}>
          <span className="mr-2 inline-block w-8 text-right font-semibold">{number}</span>
          {name}
        </li>
      ))}
    </ol>
  );
}
