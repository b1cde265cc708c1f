import { queryOptions } from "@tanstack/react-query";
import { api, body, type Schemas } from "./client";
import { folderAddress } from "./folder";

export type TrainerKind = Schemas["TrainerOut"]["kind"];
export type Round = Schemas["TrainingRoundOut"];
export type Judged = Schemas["JudgedOut"];

export const trainersQuery = queryOptions({
  queryKey: ["trainers"],
  queryFn: () => body(api.GET("/api/trainers")),
});

export const roundQuery = (kind: TrainerKind, seed: number, number: number) =>
  queryOptions({
    queryKey: ["training-round", kind, seed, number],
    queryFn: () =>
      body(
        api.GET("/api/trainers/{kind}/rounds/{number}", {
          params: { path: { kind, number }, query: { seed } },
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const pictureAddress = (seed: number, number: number) =>
  folderAddress(`/api/trainers/rust/rounds/${number}/picture?seed=${seed}`);

export const judgeAnswer = (kind: TrainerKind, seed: number, number: number, answer: string) =>
  body(
    api.POST("/api/trainers/{kind}/rounds/{number}", {
      params: { path: { kind, number } },
      body: { seed, answer },
    }),
  );

export const putTraining = (id: string, training: Schemas["TrainingBody"]) =>
  body(
    api.PUT("/api/trainings/{training_id}", {
      params: { path: { training_id: id } },
      body: training,
    }),
  );

export const putRaterError = (agrees: boolean) =>
  body(api.PUT("/api/rater-error", { body: { agrees } }));
