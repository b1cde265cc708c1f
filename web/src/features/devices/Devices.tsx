import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useChange } from "../../api/changes";
import { api, body, type Schemas } from "../../api/client";
import { pairingQuery } from "../../api/queries";
import { day, plural } from "../../domain/format";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Section } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { TextButton } from "../../ui/TextButton";
import { Tick } from "../../ui/Tick";

/**
 * Who may use this bench besides this machine: a code and its picture to let a phone in, and who
 * was.
 */
export function Devices() {
  const pairing = useQuery({ ...pairingQuery, refetchInterval: 3000 });
  const code = useMutation({ mutationFn: () => body(api.POST("/api/pairing/code")) });
  const forget = useChange((id: string) =>
    body(api.DELETE("/api/pairing/devices/{device_id}", { params: { path: { device_id: id } } })),
  );
  if (pairing.isPending) return <Waiting what="the devices" />;
  if (pairing.isError)
    return <Failed error={pairing.error} onRetry={() => void pairing.refetch()} />;
  const { open_to_network, devices } = pairing.data;
  return (
    <Page width="narrow">
      <h1 className="answer">
        {open_to_network
          ? devices.length
            ? `${plural(devices.length, "paired device")}.`
            : "Ready to pair a device."
          : "Only this computer can use the bench."}
      </h1>
      {open_to_network ? (
        <div className="mt-5 grid gap-x-12 gap-y-6 bench:grid-cols-[22rem_minmax(0,1fr)]">
          <section aria-label="Pair a device">
            {code.data ? (
              <Code shown={code.data} onAnew={() => code.mutate()} />
            ) : (
              <>
                <p className="mb-4">
                  The phone must be in the same local network. The code works once, for five
                  minutes; the connection is not encrypted, so use a network of your own.
                </p>
                <Button kind="next" onClick={() => code.mutate()} autoFocus>
                  Show a code
                </Button>
              </>
            )}
            {code.error ? <p className="mt-2 font-medium text-rust">{code.error.message}</p> : null}
          </section>
          <Section title="Paired devices">
            <ul>
              {devices.map((d) => (
                <li key={d.id} className="border-b border-line py-2">
                  <span className="flex items-center gap-3">
                    <b>{d.name}</b>
                    <span className="text-note text-ink-2">since {day(d.paired_utc)}</span>
                    <TextButton className="ml-auto" onClick={() => forget.mutate(d.id)}>
                      Unpair
                    </TextButton>
                  </span>
                  <Grants device={d} />
                </li>
              ))}
              {devices.length === 0 ? <li className="text-ink-2">None yet.</li> : null}
            </ul>
          </Section>
        </div>
      ) : (
        <p className="mt-3 max-w-2xl">
          To count on a phone by the rope, stop Kessik and start it with{" "}
          <code>kessik serve --lan</code>. It then answers devices of the local network that you
          pair here, and no others. Each code works once.
        </p>
      )}
    </Page>
  );
}

/** What a device may do besides counting, noting and reading. */
function Grants({ device }: { device: Schemas["DeviceOut"] }) {
  const put = useChange((grants: Schemas["GrantsBody"]["grants"]) =>
    body(
      api.PUT("/api/pairing/devices/{device_id}/grants", {
        params: { path: { device_id: device.id } },
        body: { grants },
      }),
    ),
  );
  return (
    <fieldset>
      <legend className="text-note text-ink-2">It counts, notes and reads. It may also</legend>
      <div className="grid grid-cols-1 gap-x-4 bench:grid-cols-2">
        {WORDS.grants.map(([grant, name]) => (
          <Tick
            key={grant}
            label={name}
            checked={device.grants.includes(grant)}
            disabled={put.isPending}
            onTick={(on) =>
              put.mutate(
                on ? [...device.grants, grant] : device.grants.filter((each) => each !== grant),
              )
            }
          />
        ))}
      </div>
      {put.error ? <p className="font-medium text-rust">{put.error.message}</p> : null}
    </fieldset>
  );
}

function Code({
  shown,
  onAnew,
}: {
  shown: { code: string; address: string; lasts_s: number; qr_svg: string };
  onAnew: () => void;
}) {
  const [left, setLeft] = useState(shown.lasts_s);
  useEffect(() => {
    const until = Date.now() + 1000 * shown.lasts_s;
    const timer = setInterval(() => setLeft(Math.max(0, (until - Date.now()) / 1000)), 500);
    return () => clearInterval(timer);
  }, [shown]);
  if (left <= 0)
    return (
      <>
        <p className="mb-4">The pairing code has expired.</p>
        <Button kind="next" onClick={onAnew}>
          Show a new code
        </Button>
      </>
    );
  return (
    <>
      <img
        className="w-full max-w-72 border-[1.5px] border-ink"
        alt={`QR code for ${shown.address}`}
        src={`data:image/svg+xml;utf8,${encodeURIComponent(shown.qr_svg)}`}
      />
      <p className="mt-3">
        Or open <b>{shown.address}</b> and type
      </p>
      <p className="wide text-[2rem] font-extrabold tracking-[0.12em]" data-testid="code">
        {shown.code}
      </p>
      <Note>
        works once, for another {Math.floor(left / 60)}:
        {String(Math.floor(left % 60)).padStart(2, "0")}
      </Note>
    </>
  );
}
