import type { Schemas } from "../../api/client";

export type Instrument = Schemas["InstrumentOut"];
export type News = Schemas["InstrumentNewsOut"];

/** Where an instrument of a kind is found, and whether it reads numbers. */
export const INSTRUMENT_KINDS: Record<
  Instrument["kind"],
  { where: string; example: string; reads: boolean }
> = {
  force: {
    where: "Port",
    example: "/dev/ttyUSB0 or 192.168.1.20:4001",
    reads: true,
  },
  rockwell: {
    where: "Port",
    example: "/dev/ttyUSB1 or 192.168.1.20:4002",
    reads: true,
  },
  xrf: {
    where: "Folder it writes results to",
    example: "/home/bench/shots",
    reads: false,
  },
  camera: {
    where: "Folder it writes pictures to",
    example: "/home/bench/pictures",
    reads: false,
  },
  pedal: { where: "Port", example: "/dev/ttyACM0", reads: false },
};
