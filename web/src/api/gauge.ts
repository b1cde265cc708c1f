import { queryOptions } from "@tanstack/react-query";
import { formOf, sendForm } from "./changes";
import { api, body, type Schemas } from "./client";

/** The order in which a study is read. */
export const gaugeOrder = (query: {
  parts: number;
  repeats: number;
  operator: string[];
  seed: number;
}) => body(api.GET("/api/gauge-order", { params: { query } }));

/** What readings say of their gauge; nothing is kept. */
export const gaugeStudyQuery = (study: Schemas["GaugeStudyBody"]) =>
  queryOptions({
    queryKey: ["gauge-study", study],
    queryFn: () => body(api.POST("/api/gauge-studies", { body: study })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before: Schemas["GaugeStudyOut"] | undefined) => before,
  });

export const keptStudiesQuery = queryOptions({
  queryKey: ["gauge-studies"],
  queryFn: () => body(api.GET("/api/gauge-studies")),
});

export const putStudy = (id: string, study: Schemas["KeptStudyBody"]) =>
  body(
    api.PUT("/api/gauge-studies/{study_id}", { params: { path: { study_id: id } }, body: study }),
  );

export const deleteStudy = (id: string) =>
  body(api.DELETE("/api/gauge-studies/{study_id}", { params: { path: { study_id: id } } }));

export async function readGaugeFile(file: File) {
  return sendForm<Schemas["GaugeFileOut"]>("/api/gauge-files", await formOf([file], "file"));
}
