// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test } from "vitest";
import { WORDS } from "../../domain/words";
import { refusal, shown } from "../../testing/page";
import { Devices } from "./Devices";

afterEach(cleanup);

const phone = { id: "phone-01", name: "phone", paired_utc: "2026-05-04T08:00:00Z", grants: [] };
const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));

test("a bench of one machine says how a phone could be let in", async () => {
  shown(<Devices />, { "GET /api/pairing": { open_to_network: false, devices: [] } });
  expect(await screen.findByText("Only this computer can use the bench.")).toBeTruthy();
  expect(screen.getByText("kessik serve --lan")).toBeTruthy();
  expect(screen.queryByRole("button", { name: "Show a code" })).toBeNull();
});

test("a code is shown with its picture and the minutes it lasts", async () => {
  shown(<Devices />, {
    "GET /api/pairing": { open_to_network: true, devices: [] },
    "POST /api/pairing/code": {
      code: "4821",
      address: "http://bench.local:8737/pair",
      lasts_s: 290,
      qr_svg: "<svg/>",
    },
  });
  await screen.findByText("Ready to pair a device.");
  await press("Show a code");
  expect((await screen.findByTestId("code")).textContent).toBe("4821");
  expect(screen.getByText(/works once, for another 4:/)).toBeTruthy();
  expect(screen.getByAltText("QR code for http://bench.local:8737/pair")).toBeTruthy();
});

test("a device is granted one thing more, and unpaired", async () => {
  const { sent } = shown(<Devices />, {
    "GET /api/pairing": { open_to_network: true, devices: [phone] },
  });
  expect(await screen.findByText("1 paired device.")).toBeTruthy();
  const [grant, name] = WORDS.grants[0];
  await userEvent.click(screen.getByLabelText(name));
  await press("Unpair");
  expect(sent).toMatchObject([
    { path: "/api/pairing/devices/phone-01/grants", body: { grants: [grant] } },
    { method: "DELETE", path: "/api/pairing/devices/phone-01" },
  ]);
});

test("what is refused stands under the grants", async () => {
  shown(<Devices />, {
    "GET /api/pairing": { open_to_network: true, devices: [phone] },
    "PUT /api/pairing/devices/*": refusal("grants", "only at the bench itself"),
  });
  await userEvent.click(await screen.findByLabelText(WORDS.grants[0][1]));
  expect(await screen.findByText("only at the bench itself")).toBeTruthy();
});
