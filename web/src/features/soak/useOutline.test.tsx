// @vitest-environment jsdom
import { act, renderHook } from "@testing-library/react";
import { beforeEach, expect, test, vi } from "vitest";
import { outlineBetween, outlineOf } from "../../api/soaks";
import type { Measuring } from "./pictureTools";
import { useOutline } from "./useOutline";

vi.mock("../../api/soaks", () => ({ outlineBetween: vi.fn(), outlineOf: vi.fn() }));

const CORNERS = [
  [0, 0],
  [9, 0],
  [9, 4],
];
const NOTHING: Measuring = { outline: [] };
const onChange = vi.fn();
const onTool = vi.fn();

const answer = (more: object) => ({
  outline: CORNERS,
  white_point: null,
  likeness: null,
  width_px: 20,
  height_px: 10,
  unsure: "",
  ...more,
});

beforeEach(() => vi.clearAllMocks());

const asked = (measuring = NOTHING) =>
  renderHook(() => useOutline("abc", measuring, onChange, onTool)).result;

test("the second press asks for the outline between both, then the card is next", async () => {
  vi.mocked(outlineBetween).mockResolvedValue(answer({}) as never);
  const outline = asked();
  await act(async () => outline.current.press([1, 2]));
  expect(outline.current.pressed).toEqual([[1, 2]]);
  expect(outlineBetween).not.toHaveBeenCalled();
  await act(async () => outline.current.press([8, 2]));
  expect(outlineBetween).toHaveBeenCalledWith("abc", [1, 2], [8, 2]);
  expect(onChange).toHaveBeenCalledWith({ outline: CORNERS, white_point: null });
  expect(onTool).toHaveBeenCalledWith("card");
  expect(outline.current.pressed).toEqual([]);
});

test("an unsure proposal draws nothing and asks for both ends", async () => {
  vi.mocked(outlineOf).mockResolvedValue(answer({ outline: [], unsure: "Mostly dark." }) as never);
  const outline = asked();
  await act(async () => outline.current.propose(""));
  expect(outline.current.says).toBe("Mostly dark.");
  expect(onChange).not.toHaveBeenCalled();
  expect(onTool).toHaveBeenCalledWith("ends");
});

test("a card that was pressed before stays where it is", async () => {
  vi.mocked(outlineOf).mockResolvedValue(answer({ white_point: [5, 5] }) as never);
  const outline = asked({ outline: [], white_point: [3, 3] });
  await act(async () => outline.current.propose("earlier"));
  expect(onChange).toHaveBeenCalledWith({ outline: CORNERS, white_point: [3, 3] });
  expect(onTool).toHaveBeenCalledWith("outline");
});

test("a refusal is said and leaves what was drawn", async () => {
  vi.mocked(outlineOf).mockRejectedValue(new Error("no blade is found in this picture"));
  const outline = asked();
  await act(async () => outline.current.propose(""));
  expect(outline.current.says).toBe("no blade is found in this picture");
  expect(onChange).not.toHaveBeenCalled();
});
