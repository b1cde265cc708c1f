import type { paths } from "./schema.gen";

/** A bench event as it is sent: a union by kind, made from the contract. */
export type EventBody =
  paths["/api/runs/{run_id}/events/{event_id}"]["put"]["requestBody"]["content"]["application/json"];
export type Kind = EventBody["kind"];
export type PayloadOf<K extends Kind> = NonNullable<Extract<EventBody, { kind: K }>["payload"]>;
/** Write one more event into the log of a run; `countAt` where it belongs to an earlier count. */
export type Log = <K extends Kind>(
  kind: K,
  payload?: PayloadOf<K>,
  id?: string,
  countAt?: number,
) => Promise<void>;
