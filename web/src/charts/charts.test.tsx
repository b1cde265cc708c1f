import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { DecayChart } from "./DecayChart";
import type { ChartRun } from "./decay";
import { EdgeStrip } from "./EdgeStrip";
import { LifeLadder, type Rung } from "./LifeLadder";
import { type Look, LooksChart } from "./LooksChart";
import { PowerChart } from "./PowerChart";
import { RopeAhead } from "./RopeAhead";

const times = (text: string, part: string | RegExp) => text.split(part).length - 1;
const nothing = () => undefined;

describe("the edge strip", () => {
  const edge = { number: 3, zoneFromMm: 12, zoneToMm: 76, cuts: 21, worn: 1, label: "21 cuts" };
  type Drawn = Omit<typeof edge, "zoneToMm"> & { zoneToMm: number | null; live?: boolean };
  const draw = (edges: Drawn[], length: number | null = 96) =>
    renderToStaticMarkup(
      <EdgeStrip mark={0} title="AV-01" edgeLengthMm={length} edges={edges} width={470} detail />,
    );

  it("draws one stroke for each cut, and hatches what was taped off", () => {
    const strokes = (cuts: number) =>
      times(draw([{ ...edge, cuts }]), /<rect[^>]*height="10" fill="var\(--ink\)"/);
    expect(strokes(21)).toBe(21);
    expect(strokes(0)).toBe(0);
    expect(times(draw([edge]), 'fill="url(#')).toBe(2);
    expect(times(draw([{ ...edge, zoneFromMm: 0, zoneToMm: 96 }]), 'fill="url(#')).toBe(0);
  });

  it("draws a bar where strokes would run together", () => {
    const drawn = draw([{ ...edge, cuts: 900 }]);
    expect(times(drawn, /<rect[^>]*height="10" fill="var\(--ink\)"/)).toBe(1);
  });

  it("draws a zone that ends beyond a length corrected later", () => {
    const beyond = draw([{ ...edge, zoneFromMm: 60, zoneToMm: 76 }], 50);
    expect(beyond).not.toMatch(/(width|height)="-/);
    expect(draw([{ ...edge, zoneFromMm: 60, zoneToMm: null }], 50)).not.toMatch(/width="-/);
  });

  it("says in words what it shows, newest edge first", () => {
    expect(draw([edge, { ...edge, number: 4, label: "9 cuts", live: true }])).toContain(
      'aria-label="AV-01. edge 4: 9 cuts; edge 3: 21 cuts"',
    );
    expect(draw([])).toContain("AV-01. not cut yet");
  });

  it("is to scale only where the length is known", () => {
    expect(draw([edge])).toContain(">80<");
    expect(draw([edge], null)).not.toContain(">80<");
  });
});

describe("the decay chart", () => {
  const run: ChartRun = {
    id: "r1",
    blade: "AV-01",
    mark: 0,
    edge: 3,
    readings: [
      { count: 0, force_gf: 150, struck: false },
      { count: 8, force_gf: 330, struck: true },
      { count: 14, force_gf: 410, struck: false },
    ],
    band: { counts: [0, 14], middle_gf: [150, 405], low_gf: [140, 380], high_gf: [160, 430] },
    life: { estimate: 13.6, low: 12.4, high: 15.1 },
    leftOut: false,
  };
  const draw = (runs: ChartRun[]) =>
    renderToStaticMarkup(
      <DecayChart
        title="Sharpness"
        runs={runs}
        limits={[
          { stage: "keen", gf: 300 },
          { stage: "dull", gf: 400 },
        ]}
        unit="cuts"
        width={800}
        height={450}
        highlighted={null}
        onHighlight={nothing}
      />,
    );
  const heightOf = (drawn: string, words: string) =>
    Number(drawn.match(new RegExp(`y="([\\d.]+)"[^>]*>${words}`))?.[1]);

  it("shows every reading with its words, struck ones struck through", () => {
    const drawn = draw([run]);
    expect(drawn).toContain("<title>AV-01, edge 3: 410 gf at 14</title>");
    expect(drawn).toContain("330 gf at 8, excluded");
    expect(times(drawn, 'stroke="var(--rust)"')).toBe(1);
  });

  it("puts sharp on top: keen stands above dull", () => {
    const drawn = draw([run]);
    expect(heightOf(drawn, "150<")).toBeLessThan(heightOf(drawn, "400<"));
    expect(drawn.indexOf("keen, 300 gf")).toBeGreaterThan(0);
    expect(drawn.indexOf("dull, 400 gf")).toBeGreaterThan(0);
  });

  it("names blades at their ends only where there is more than one to tell apart", () => {
    const names = (drawn: string) => times(drawn, 'class="cond">AV-');
    expect(names(draw([run]))).toBe(0);
    expect(names(draw([run, { ...run, id: "r2", blade: "AV-02", mark: 1 }]))).toBe(2);
  });

  it("stands even with nothing to show", () => {
    expect(draw([])).toContain("dull, 400 gf");
  });
});

describe("the life ladder", () => {
  const rung: Rung = {
    blade: "AV-01",
    mark: 0,
    grade: "1.4034",
    ranked: true,
    words: "14 cuts, 12 to 15",
    estimate: 13.6,
    low: 12.4,
    high: 15.1,
    edges: 2,
  };
  const draw = (rungs: Rung[], ties: string[][] = []) =>
    renderToStaticMarkup(
      <LifeLadder
        rungs={rungs}
        tieGroups={ties}
        width={400}
        highlighted={null}
        onHighlight={nothing}
      />,
    );

  it("gives each life with its interval, and says who is not ranked", () => {
    const drawn = draw([rung, { ...rung, blade: "AV-03", mark: 2, ranked: false }]);
    expect(drawn).toContain("12 to 15");
    expect(drawn).toContain('aria-label="AV-01: 14 cuts, 12 to 15"');
    expect(drawn).toContain("not ranked");
  });

  it("brackets those that cannot be told apart, and none whose partner is hidden", () => {
    const ties = [["AV-01", "AV-02"]];
    const both = [rung, { ...rung, blade: "AV-02", mark: 1 }];
    expect(times(draw(both, ties), "h4V")).toBe(1);
    expect(times(draw([rung], ties), "h4V")).toBe(0);
  });

  it("puts words where there is no estimate", () => {
    const bracket = { ...rung, estimate: null, low: 48, high: 60, words: "between 48 and 60 cuts" };
    expect(draw([bracket])).toContain(">between 48 and 60 cuts<");
  });
});

describe("the rope ahead", () => {
  const draw = (next: number | null, band: [number, number] | null = null) =>
    renderToStaticMarkup(
      <RopeAhead count={17} nextCheck={next} band={band} bandName="dull" width={1200} />,
    );
  it("marks the next check and where the limit is expected", () => {
    expect(draw(20, [22, 29])).toContain("17 cut; next check at 20");
    expect(draw(20, [22, 29])).toContain("dull expected here");
    expect(draw(17)).toContain("a check is due now");
    expect(draw(null)).toContain("no check is planned");
  });
});

describe("looks that pass or fail", () => {
  const look = (id: string, part: Partial<Look>): Look => ({
    id,
    kind: "paper",
    count: 0,
    outcome: "pass",
    seen: "",
    value: null,
    struck: false,
    ...part,
  });
  const names = new Map([
    ["inspect", "under the lamp"],
    ["paper", "slices held paper"],
  ]);
  const draw = (looks: Look[]) =>
    renderToStaticMarkup(<LooksChart looks={looks} names={names} unit="cuts" width={480} />);

  it("says every look in words, what the lamp saw by its name", () => {
    const drawn = draw([
      look("a", {}),
      look("b", { kind: "inspect", count: 5, outcome: "fail", seen: "glint" }),
    ]);
    expect(drawn).toContain("slices held paper at 0: pass; under the lamp at 5: glint");
    expect(draw([])).toContain("no look yet");
  });

  it("tells pass, doubt and fail apart by shape, and writes what was measured", () => {
    const drawn = draw([
      look("a", {}),
      look("b", { outcome: "doubt", count: 1 }),
      look("c", { outcome: "fail", count: 2 }),
    ]);
    expect(times(drawn, /<circle[^>]*fill="var\(--ink\)"/)).toBe(1);
    expect(times(drawn, /<circle[^>]*fill="none"/)).toBe(1);
    expect(times(drawn, /<path[^>]*stroke="var\(--rust\)"/)).toBe(1);
    expect(draw([look("a", { outcome: null, value: 6.5 })])).toContain(">6.5<");
  });
});

describe("the power chart", () => {
  const points = [1, 2, 3, 4].map((edges) => ({ edges, percent: 60 / edges }));
  const draw = (width: number) =>
    renderToStaticMarkup(
      <PowerChart
        points={points}
        edges={2}
        wanted={20}
        hoursAnEdge={1}
        blades={2}
        width={width}
        onChoose={nothing}
      />,
    );
  it("gives the hours under every number of edges, under every second one on a phone", () => {
    expect(times(draw(560), /<text[^>]*>\d+ h</)).toBe(4);
    expect(times(draw(340), /<text[^>]*>\d+ h</)).toBe(2);
    expect(draw(560)).toContain("30 %");
  });
});

describe("a dose or a pass/fail run in the decay chart", () => {
  it("is drawn without limit lines", () => {
    const run: ChartRun = {
      id: "r",
      blade: "A",
      mark: 0,
      edge: 3,
      readings: [
        { count: 0, force_gf: 150, struck: false },
        { count: 50, force_gf: 320, struck: false },
      ],
      band: null,
      life: null,
      leftOut: false,
    };
    const drawn = renderToStaticMarkup(
      <DecayChart
        title="Fifty cuts"
        runs={[run]}
        limits={[]}
        unit="cuts"
        width={600}
        height={330}
        highlighted={null}
        onHighlight={nothing}
      />,
    );
    expect(drawn).not.toContain("dull");
    expect(drawn).toContain("A, edge 3: 320 gf at 50");
  });
});
