import { describe, expect, it } from "vitest";
import { counted, day, localTime, plural, toUncertainty, typedNumber, unbroken } from "./format";
import { newId } from "./ids";
import { markOf, markPath } from "./marks";
import { fullCuts, stripEdges } from "./strips";

describe("numbers for show", () => {
  it("have the digits their interval supports", () => {
    expect(toUncertainty(12.43, 11.3, 13.6)).toBe("12");
    expect(toUncertainty(12.43, 12.0, 12.9)).toBe("12.4");
    expect(toUncertainty(1.234, 1.2, 1.3)).toBe("1.23");
    expect(toUncertainty(412.6, 412.2, 413.0)).toBe("413");
  });

  it("are counted whole where they are whole", () => {
    expect(counted(12)).toBe("12");
    expect(counted(12.5)).toBe("12.5");
    expect([plural(1, "edge"), plural(2, "edge"), plural(2, "loss", "losses")]).toEqual([
      "1 edge",
      "2 edges",
      "2 losses",
    ]);
  });

  it("may be typed with a comma, and what is no number is told from nothing", () => {
    expect(typedNumber(" 0,36 ")).toBe(0.36);
    expect(typedNumber("")).toBeNull();
    expect(typedNumber("thin")).toBeUndefined();
    expect(typedNumber("1e999")).toBeUndefined();
  });

  it("keep their unit and codes their parts when a line breaks", () => {
    expect(unbroken("AV-03 differs by 0.34 mm")).toBe("AV\u201103 differs by 0.34\u00a0mm");
  });
});

describe("times", () => {
  const now = new Date(2026, 4, 20, 9, 0);
  it("are said as people say them", () => {
    expect(day(new Date(2026, 4, 20, 1, 0).toISOString(), now)).toBe("today");
    expect(day(new Date(2026, 4, 19, 23, 0).toISOString(), now)).toBe("yesterday");
    expect(day(new Date(2026, 4, 11, 12, 0).toISOString(), now)).toBe("9 days ago");
    expect(day(new Date(2026, 1, 3, 12, 0).toISOString(), now)).toBe("2026-02-03");
  });

  it("are logged with the offset of this machine", () => {
    const text = localTime(now);
    expect(text).toMatch(/^2026-05-20T09:00:00\.000[+-]\d\d:\d\d$/);
    expect(new Date(text).getTime()).toBe(now.getTime());
  });
});

describe("marks", () => {
  it("differ in shape, line and colour for every blade of a trial", () => {
    const marks = Array.from({ length: 8 }, (_, mark) => markOf(mark));
    for (const part of [
      marks.map((m) => m.dash),
      marks.map((m) => m.colour),
      marks.map((m) => markPath(m, 0, 0, 5)),
    ]) {
      expect(new Set(part).size).toBe(8);
    }
    const looks = Array.from({ length: 64 }, (_, mark) => markOf(mark));
    expect(new Set(looks.map((m) => `${m.outline}${m.dash}${m.colour}`)).size).toBe(64);
  });

  it("are closed outlines of the size asked for", () => {
    for (let mark = 0; mark < 8; mark += 1) {
      const path = markPath(markOf(mark), 10, 10, 4);
      expect(path.startsWith("M")).toBe(true);
      expect(path.endsWith("Z")).toBe(true);
    }
  });
});

describe("edge strips", () => {
  const run = {
    edge: 3,
    arm_id: "a",
    practice: false,
    status: "stopped",
    count: 21,
    count_unit: "cuts",
    zone_from_mm: 12,
    zone_to_mm: 76,
    worn_share: 1,
  };
  it("show a lane for each edge cut, without practice or another blade's runs", () => {
    const runs = [
      run,
      { ...run, edge: 4, status: "cutting", count: 9, worn_share: 0.4 },
      { ...run, practice: true },
      { ...run, arm_id: "b" },
    ];
    expect(
      stripEdges(runs, { arm_id: "a", edges: [] }).map((e) => [e.number, e.cuts, e.live, e.label]),
    ).toEqual([
      [3, 21, false, "21 cuts"],
      [4, 9, true, "9 cuts"],
    ]);
  });

  it("show the edge that waits with its zones, stations and what was seen on it", () => {
    const waiting = {
      id: "edge-5",
      number: 5,
      zones: [
        { from_mm: 0, to_mm: 12, use: "taped" },
        { from_mm: 12, to_mm: 76, use: "cut" },
      ],
      damage: [{ position_mm: 33, kind: "glint" }],
      measurements: [
        {
          quantity: "thickness_behind_edge_mm",
          in_use: true,
          details: { stations: [{ position_mm: 16 }] },
        },
        {
          quantity: "thickness_behind_edge_mm",
          in_use: false,
          details: { stations: [{ position_mm: 80 }] },
        },
      ],
    };
    const [, lane] = stripEdges([run], { arm_id: "a", edges: [waiting] });
    expect(lane).toMatchObject({
      number: 5,
      label: "fresh",
      zoneFromMm: 12,
      zoneToMm: 76,
      seen: [{ atMm: 33, kind: "glint" }],
      stationsMm: [16],
    });
    expect(stripEdges([run], { arm_id: "a", edges: [waiting] }, ["edge-5"])).toHaveLength(1);
    expect(lane?.zones?.map((z) => z.use)).toEqual(["taped", "cut"]);
  });

  it("share one scale, so that strokes compare by eye", () => {
    expect(fullCuts([run, { ...run, count: 58 }, { ...run, count: 300, practice: true }])).toBe(58);
    expect(fullCuts([])).toBe(20);
  });
});

describe("ids", () => {
  it("are random UUIDs of version 4", () => {
    const ids = Array.from({ length: 200 }, newId);
    expect(new Set(ids).size).toBe(200);
    for (const id of ids)
      expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  });
});
