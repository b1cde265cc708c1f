import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { performanceQuery } from "../../api/queries";
import { ChartFrame } from "../../charts/ChartFrame";
import { YieldChart } from "../../charts/YieldChart";
import { labelOf, WORDS, type WordOf } from "../../domain/words";
import { Choice, Option, Options } from "../../ui/Choice";
import { Failed, Waiting } from "../../ui/State";
import { useWidth } from "../../ui/useWidth";

/** What blades are made of against how they did, over the tester's own trials of one method. */
export function Performance() {
  const [search, setSearch] = useSearchParams();
  const of = WORDS.yields.find(([name]) => name === search.get("of"))?.[0] ?? "life";
  const asked = {
    method: search.get("method") ?? "",
    against: search.get("against") ?? "",
    of,
  };
  const found = useQuery(performanceQuery(asked));
  const { ref, width } = useWidth<HTMLDivElement>(1000);
  if (found.isPending) return <Waiting what="the lives" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const { data } = found;
  const pick = (change: Partial<typeof asked>) =>
    setSearch({ method: data.method, against: data.against, of, ...change });
  const variable = data.variables.find((v) => v.name === data.against);
  const xLabel = `${variable?.label ?? data.against}${variable?.unit ? `, ${variable.unit}` : ""}`;
  const yLabel = `${labelOf("yields", of)}, ${data.unit}`;
  return (
    <div className="mx-auto max-w-[1280px] px-4 pt-6 pb-8 bench:px-7" ref={ref}>
      <h1 className="answer max-w-4xl">
        {data.methods.length ? data.says : "No trial has a life yet to compare with composition."}
      </h1>
      {data.travels ? <p className="mt-2 max-w-4xl text-ink-2">{data.travels}</p> : null}
      {data.methods.length ? (
        <>
          <div className="mt-4 grid max-w-4xl gap-4 bench:grid-cols-[1.6fr_1fr_1fr]">
            <Choice
              label="Trials of one method"
              value={data.method}
              onPick={(method) => pick({ method })}
            >
              {data.methods.map((name) => (
                <Option key={name} value={name}>
                  {name}
                </Option>
              ))}
            </Choice>
            <Choice
              label="Result of the blade"
              value={of}
              onPick={(to) => pick({ of: to as WordOf<"yields"> })}
            >
              <Options of={WORDS.yields} />
            </Choice>
            <Choice label="against" value={data.against} onPick={(against) => pick({ against })}>
              {data.variables.map((v) => (
                <Option key={v.name} value={v.name}>
                  {v.label}
                </Option>
              ))}
            </Choice>
          </div>
          <ChartFrame
            name={`${yLabel} against ${xLabel}`}
            caption={
              "Hollow marks are only claimed: they are shown and not counted. Whiskers are 95 % " +
              "intervals of a life. A correlation in a few blades need not be a cause."
            }
            series={[...new Map(data.points.map((p) => [p.code, p.mark]))].map(([name, mark]) => ({
              name,
              mark,
            }))}
            numbers={{
              heads: ["blade", xLabel, "known", yLabel, "from", "to"],
              rows: data.points.map((p) => [
                p.code,
                String(Number(p.x.toPrecision(5))),
                p.x_from,
                ...[p.y, p.low, p.high].map((value) =>
                  value === null ? "" : String(Number(value.toPrecision(4))),
                ),
              ]),
            }}
          >
            {({ hidden }) => (
              <YieldChart
                points={data.points.filter((p) => !hidden.has(p.code))}
                xLabel={xLabel}
                yLabel={yLabel}
                width={Math.min(width - 8, 1100)}
              />
            )}
          </ChartFrame>
        </>
      ) : null}
    </div>
  );
}
