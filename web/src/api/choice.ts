import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { api, body, type Schemas } from "./client";

export type UseBody = Schemas["UseBody"];
export type AxisKey = Schemas["AxisOut"]["key"];

export const usesQuery = queryOptions({
  queryKey: ["uses"],
  queryFn: () => body(api.GET("/api/uses")),
});

/** A use weighed; the last answer stays until the next is there. */
export const choiceQuery = (use: UseBody) =>
  queryOptions({
    queryKey: ["choice", use],
    queryFn: () => body(api.POST("/api/choice", { body: use })),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state: { data } }) =>
      data && data.trials_done < data.trials ? 1500 : false,
  });

export const putUse = ({ id, ...use }: UseBody & { id: string }) =>
  body(api.PUT("/api/uses/{use_id}", { params: { path: { use_id: id } }, body: use }));

export const deleteUse = (id: string) =>
  body(api.DELETE("/api/uses/{use_id}", { params: { path: { use_id: id } } }));

export const upkeepQuery = (toSideDeg: number | null) =>
  queryOptions({
    queryKey: ["upkeep", toSideDeg],
    queryFn: () =>
      body(
        api.GET("/api/upkeep", {
          params: { query: toSideDeg === null ? {} : { to_side_deg: toSideDeg } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
