// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it } from "vitest";
import { shown } from "../../testing/page";
import { ActForm } from "./ActForm";
import type { Soak } from "./soak";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

const soak = { id: "soak-0001", coupons: [] } as unknown as Soak;

it("an unreadable pH or time is not sent as nothing", async () => {
  const { sent } = shown(<ActForm soak={soak} first="measured" onDone={() => undefined} />);
  await userEvent.type(screen.getByLabelText("pH"), "about 7");
  await userEvent.click(screen.getByText("Save"));
  expect(sent).toEqual([]);
  await userEvent.clear(screen.getByLabelText("pH"));
  await userEvent.type(screen.getByLabelText("pH"), "6,9");
  await userEvent.clear(screen.getByLabelText("When"));
  await userEvent.type(screen.getByLabelText("When"), "2026-05-04 9");
  await userEvent.click(screen.getByText("Save"));
  expect(sent).toEqual([]);
  await userEvent.clear(screen.getByLabelText("When"));
  await userEvent.type(screen.getByLabelText("When"), "2026-05-04 09:30");
  await userEvent.click(screen.getByText("Save"));
  expect(sent[0]?.body).toMatchObject({ kind: "measured", ph: 6.9, salt_percent: null });
});
