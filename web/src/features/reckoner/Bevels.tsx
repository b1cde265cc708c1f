import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { putMeasurement, useChange } from "../../api/changes";
import { api, type Schemas } from "../../api/client";
import { shelfQuery } from "../../api/queries";
import { BevelSection } from "../../charts/BevelSection";
import { newId } from "../../domain/ids";
import { WORDS, type WordOf } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { useWidth } from "../../ui/useWidth";
import { Answer, Calculation, useFigures, useReckoned } from "./reckon";

type Found = Schemas["BevelReckonedOut"];

/**
 * Thickness, angle and bevel width: any two give the third, with the cross-section drawn to scale.
 */
export function Bevels() {
  const { ref, width } = useWidth<HTMLDivElement>(460);
  const [wanted, setWanted] = useState<WordOf<"bevelParts">>("width");
  const { read, field } = useFigures("bevel", {
    thickness: "0.40",
    angle: "17",
    width: "0.7",
    microAngle: "",
    microWidth: "",
  });
  const query = {
    thickness_mm: wanted === "thickness" ? null : read.thickness,
    side_angle_deg: wanted === "angle" ? null : read.angle,
    face_width_mm: wanted === "width" ? null : read.width,
    micro_side_angle_deg: read.microAngle,
    micro_face_width_mm: read.microWidth,
  };
  const given = [query.thickness_mm, query.side_angle_deg, query.face_width_mm].filter(
    (v) => typeof v === "number",
  );
  const ready = given.length === 2 && !Object.values(query).includes(undefined);
  const asked = Object.fromEntries(Object.entries(query).filter(([, v]) => typeof v === "number"));
  const { data, at, error } = useReckoned<Found>("bevel", asked, ready, () =>
    api.GET("/api/reckoner/bevel", { params: { query: asked } }),
  );
  const placed = [
    "thickness_mm",
    "side_angle_deg",
    "face_width_mm",
    "micro_side_angle_deg",
    "micro_face_width_mm",
  ];
  return (
    <Calculation
      place="bevel"
      title="Bevel and thickness"
      footing={data?.footing}
      error={error && !placed.some((name) => at(name)) ? error : null}
    >
      <div className="grid items-start gap-x-12 gap-y-4 bench:grid-cols-[1fr_1fr]">
        <div>
          <Choice
            label="Calculate"
            value={wanted}
            onPick={(picked) => setWanted(picked as WordOf<"bevelParts">)}
          >
            <Options of={WORDS.bevelParts} />
          </Choice>
          <div className="mt-3 grid grid-cols-2 gap-3">
            {wanted !== "thickness" ? (
              <Field
                label="Thickness behind the edge"
                unit="mm"
                {...field("thickness", at("thickness_mm"))}
              />
            ) : null}
            {wanted !== "angle" ? (
              <Field label="Angle per side" unit="°" {...field("angle", at("side_angle_deg"))} />
            ) : null}
            {wanted !== "width" ? (
              <Field label="Bevel width" unit="mm" {...field("width", at("face_width_mm"))} />
            ) : null}
            <Field
              label="Micro-bevel, per side"
              unit="°"
              hint="empty where there is none"
              {...field("microAngle", at("micro_side_angle_deg"))}
            />
            <Field
              label="Micro-bevel width"
              unit="mm"
              {...field("microWidth", at("micro_face_width_mm"))}
            />
          </div>
          <Answer>
            {data
              ? wanted === "width"
                ? `${data.whole.face_width_mm.toFixed(3)} mm wide`
                : wanted === "angle"
                  ? `${data.whole.side_angle_deg.toFixed(1)}° per side`
                  : `${data.whole.thickness_mm.toFixed(3)} mm thick`
              : "–"}
          </Answer>
          {data ? (
            <p className="text-ink-2">
              {data.included_deg.toFixed(1)}° included, {data.whole.height_mm.toFixed(3)} mm high,{" "}
              {data.whole.thickness_mm.toFixed(3)} mm is {data.thickness_thou.toFixed(1)} thou
              {data.micro
                ? "; with the micro-bevel the edge bevel keeps " +
                  `${data.main.face_width_mm.toFixed(3)} mm and the edge cuts at ` +
                  `${data.cutting_included_deg.toFixed(1)}° included`
                : ""}
              .
            </p>
          ) : null}
          {(data?.remarks ?? []).map((r) => (
            <p key={r} role="status" className="mt-1 border-l-4 border-glint pl-2 text-note">
              {r}
            </p>
          ))}
          {data ? <SaveOnBlade found={data} /> : null}
        </div>
        <div ref={ref}>
          {data ? (
            <BevelSection
              main={data.main}
              micro={data.micro}
              thickness={data.whole.thickness_mm}
              width={width}
            />
          ) : null}
        </div>
      </div>
    </Calculation>
  );
}

/** Keep the thickness and angle on the newest edge of a blade. */
function SaveOnBlade({ found }: { found: Found }) {
  const shelf = useQuery(shelfQuery);
  const blades = (shelf.data?.blades ?? [])
    .map((s) => s.blade)
    .filter((b) => !b.archived_utc && b.edges.length);
  const [bladeId, setBladeId] = useState("");
  const blade = blades.find((b) => b.id === bladeId);
  const edge = blade?.edges.at(-1);
  const save = useChange(async () => {
    if (!blade || !edge) return;
    const note = "from the reckoner";
    const common = { edge_id: edge.id, standing: "measured_here" as const, note };
    await putMeasurement(blade.id, {
      ...common,
      id: newId(),
      quantity: "thickness_behind_edge_mm",
      value: found.whole.thickness_mm,
    });
    await putMeasurement(blade.id, {
      ...common,
      id: newId(),
      quantity: "side_angle_deg",
      value: found.whole.side_angle_deg,
    });
    if (found.micro)
      await putMeasurement(blade.id, {
        ...common,
        id: newId(),
        quantity: "micro_bevel_side_deg",
        value: found.micro.side_angle_deg,
      });
  });
  if (blades.length === 0) return null;
  return (
    <div className="mt-3 flex flex-wrap items-end gap-3">
      <Choice
        label="Save it on the newest edge of"
        value={bladeId}
        onPick={(picked) => setBladeId(picked)}
      >
        <Option value="">no blade</Option>
        {blades.map((b) => (
          <Option key={b.id} value={b.id}>
            {b.code}, edge {b.edges.at(-1)?.number}
          </Option>
        ))}
      </Choice>
      <Button disabled={!edge || save.isPending} onClick={() => save.mutate(undefined)}>
        Save thickness and angle
      </Button>
      {save.isSuccess && blade ? (
        <Link
          role="status"
          className="flex min-h-11 items-center underline underline-offset-4"
          to={`/blades/${blade.id}`}
        >
          Saved on {blade.code}
        </Link>
      ) : null}
      <Notice says={save.error?.message} />
    </div>
  );
}
