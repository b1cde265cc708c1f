import { queryOptions } from "@tanstack/react-query";
import { body, homeApi, type Schemas } from "./client";
import { inPractice } from "./folder";

export type Practice = Schemas["PracticeOut"];
const LOOKS_AGAIN_MS = 1200;

/** Where the guided practice stands; inside it a page looks again by itself, as the count goes on. */
export const practiceQuery = queryOptions({
  queryKey: ["practice"],
  queryFn: () => body(homeApi.GET("/api/practice")),
  refetchInterval: inPractice ? LOOKS_AGAIN_MS : false,
});

export const beginPractice = () => body(homeApi.POST("/api/practice"));

export const takePracticeStep = (kind: Practice["kind"]) =>
  body(homeApi.POST("/api/practice/steps/{kind}", { params: { path: { kind } } }));

export const deletePractice = () => body(homeApi.DELETE("/api/practice"));
