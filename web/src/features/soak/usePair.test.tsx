// @vitest-environment jsdom
import { act, renderHook } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { usePair } from "./usePair";

it("two presses make a pair, and the third begins the next", () => {
  const onPair = vi.fn();
  const pair = renderHook(() => usePair(onPair)).result;
  act(() => pair.current.press([1, 2]));
  expect(pair.current.pressed).toEqual([[1, 2]]);
  act(() => pair.current.press([5, 2]));
  expect(onPair).toHaveBeenCalledExactlyOnceWith([1, 2], [5, 2]);
  act(() => pair.current.press([7, 7]));
  expect(pair.current.pressed).toEqual([[7, 7]]);
});
