// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Refused } from "../api/client";
import { LIMITS } from "../domain/limits.gen";
import { shown } from "../testing/page";
import { Field } from "./Field";
import { FormFoot } from "./FormFoot";
import { Tick } from "./Tick";
import { useForm } from "./useForm";

const KINDS = {
  name: "text",
  ph: LIMITS.ph,
  cuts: { needed: "say how many cuts" },
  damp: "yes",
} as const;

function Jar({ onSend, error = null }: { onSend: (sent: unknown) => void; error?: Error | null }) {
  const form = useForm({
    draft: "jar",
    kinds: KINDS,
    start: { name: "brine", ph: "", cuts: "", damp: "" },
    error,
  });
  return (
    <form onSubmit={form.onSubmit(onSend)}>
      <Field label="Name" {...form.field("name")} />
      <Field label="pH" {...form.field("ph")} />
      <Field label="Cuts" {...form.field("cuts")} />
      <Tick label="damp" {...form.tick("damp")} />
      <FormFoot form={form} isSaving={false} />
    </form>
  );
}

const refusal = (field: string | null, detail: string) =>
  new Refused({ type: "about:blank", title: "Refused", status: 422, detail, field });

describe("a form", () => {
  afterEach(() => {
    cleanup();
    sessionStorage.clear();
  });

  it("sends what was read, and nothing while a field cannot be read", async () => {
    const send = vi.fn();
    shown(<Jar onSend={send} />);
    await userEvent.type(screen.getByLabelText("pH"), "6,x");
    await userEvent.click(screen.getByText("Save"));
    expect(send).not.toHaveBeenCalled();
    expect(screen.getByText("“6,x” is not a number")).toBeTruthy();
    expect(screen.getByText("say how many cuts")).toBeTruthy();
    await userEvent.clear(screen.getByLabelText("pH"));
    await userEvent.type(screen.getByLabelText("pH"), "6,4");
    await userEvent.type(screen.getByLabelText("Cuts"), "12");
    await userEvent.click(screen.getByLabelText("damp"));
    await userEvent.click(screen.getByText("Save"));
    expect(send).toHaveBeenCalledWith({ name: "brine", ph: 6.4, cuts: 12, damp: true });
  });

  it("says a limit at its field before anything is sent", async () => {
    shown(<Jar onSend={() => undefined} />);
    await userEvent.type(screen.getByLabelText("pH"), "15");
    expect(screen.getByRole("alert").textContent).toBe("15 is out of range: give 0 to 14");
  });

  it("asks for what is missing only once saving was tried", async () => {
    shown(<Jar onSend={() => undefined} />);
    expect(screen.queryByText("say how many cuts")).toBeNull();
    await userEvent.click(screen.getByText("Save"));
    expect(screen.getByText("say how many cuts")).toBeTruthy();
  });

  it("has what was typed after a reload", async () => {
    const first = shown(<Jar onSend={() => undefined} />);
    await userEvent.type(screen.getByLabelText("Cuts"), "7 of");
    first.unmount();
    shown(<Jar onSend={() => undefined} />);
    expect(screen.getByLabelText<HTMLInputElement>("Cuts").value).toBe("7 of");
  });

  it("shows a refusal at its field, and one of no field shown beside the button", () => {
    shown(<Jar onSend={() => undefined} error={refusal("name", "taken already")} />);
    expect(screen.getAllByText("taken already")).toHaveLength(1);
    shown(<Jar onSend={() => undefined} error={refusal("salt_lot_id", "another lot")} />);
    expect(screen.getByText("another lot")).toBeTruthy();
  });
});
