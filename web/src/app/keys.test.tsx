// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { useKeys } from "./keys";

function Place({ run }: { run: (what: string) => void }) {
  useKeys([{ key: "n", does: "a new trial", run: () => run("new") }]);
  return (
    <div>
      <input aria-label="name" />
      <div role="dialog">
        <button type="button">in a dialog</button>
      </div>
    </div>
  );
}

describe("keys of a place", () => {
  afterEach(cleanup);

  it("do what they say, in either case, and not with a modifier", async () => {
    const run = vi.fn();
    render(<Place run={run} />);
    await userEvent.keyboard("nN");
    expect(run).toHaveBeenCalledTimes(2);
    await userEvent.keyboard("{Control>}n{/Control}{Alt>}n{/Alt}x");
    expect(run).toHaveBeenCalledTimes(2);
  });

  it("belong to what is being typed or answered", async () => {
    const run = vi.fn();
    const { getByLabelText, getByText } = render(<Place run={run} />);
    await userEvent.type(getByLabelText("name"), "n");
    getByText("in a dialog").focus();
    await userEvent.keyboard("n");
    expect(run).not.toHaveBeenCalled();
  });

  it("do what the screen shows by now, and nothing once it is gone", async () => {
    const before = vi.fn();
    const after = vi.fn();
    const { rerender, unmount } = render(<Place run={before} />);
    rerender(<Place run={after} />);
    await userEvent.keyboard("n");
    unmount();
    await userEvent.keyboard("n");
    expect([before.mock.calls.length, after.mock.calls.length]).toEqual([0, 1]);
  });
});
