// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { shown } from "../testing/page";
import { CellField } from "./CellField";
import { useRows } from "./useRows";

const KINDS = { what: "text", every_h: { needed: "give the hours" } } as const;

function Sprays({ onRead }: { onRead: (rows: unknown) => void }) {
  const rows = useRows({
    draft: "sprays",
    kinds: KINDS,
    start: [{ id: "first", what: "brine", every_h: "12" }],
  });
  return (
    <>
      {rows.rows.map((row, place) => (
        <CellField key={row.id} says={`hours ${place + 1}`} {...rows.cell(row, "every_h")} />
      ))}
      <button type="button" onClick={() => rows.add({ what: "water", every_h: "" })}>
        add
      </button>
      <button type="button" onClick={() => rows.remove("first")}>
        delete
      </button>
      <button type="button" onClick={() => onRead(rows.read())}>
        read
      </button>
    </>
  );
}

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

describe("rows of a form", () => {
  it("are read only once every cell of them can be, and say at the cell why not", async () => {
    const onRead = vi.fn();
    const tester = userEvent.setup();
    shown(<Sprays onRead={onRead} />);
    const hours = screen.getByLabelText("hours 1");
    await tester.clear(hours);
    await tester.type(hours, "six");
    await tester.click(screen.getByText("read"));
    expect(onRead).toHaveBeenLastCalledWith(null);
    expect(screen.getByRole("alert").textContent).toBe("“six” is not a number");
    await tester.clear(hours);
    await tester.type(hours, "6,5");
    await tester.click(screen.getByText("read"));
    expect(onRead).toHaveBeenLastCalledWith([{ id: "first", what: "brine", every_h: 6.5 }]);
  });

  it("come back after a reload, the added and without the deleted", async () => {
    const tester = userEvent.setup();
    shown(<Sprays onRead={vi.fn()} />);
    await tester.click(screen.getByText("add"));
    await tester.type(screen.getByLabelText("hours 2"), "24");
    await tester.click(screen.getByText("delete"));
    cleanup();
    shown(<Sprays onRead={vi.fn()} />);
    expect((screen.getByLabelText("hours 1") as HTMLInputElement).value).toBe("24");
    expect(screen.queryByLabelText("hours 2")).toBeNull();
  });
});
