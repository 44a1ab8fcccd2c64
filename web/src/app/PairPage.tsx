import { useState } from "react";
import { type Problem, problemOf } from "../api/client";
import { pair } from "../shared/devices";
import { useUnits } from "../shared/format/useUnits";
import { wordProblem } from "../shared/format/words";
import { FileLink } from "../shared/ui/files";
import { Button, Notice, TextField } from "../shared/ui/plain";

/** What a device sees that is not paired: where the code is, a field for it, and how to trust this machine for good. */
export function PairPage() {
  const units = useUnits();
  const [code, setCode] = useState("");
  const [name, setName] = useState("Tablet at the stove");
  const [refused, setRefused] = useState<Problem | null>(null);
  const submit = async () => {
    setRefused(null);
    try {
      await pair(code.trim(), name.trim());
      window.location.reload();
    } catch (error) {
      setRefused(problemOf(error));
    }
  };
  return (
    <main className="mx-auto max-w-xl space-y-6 px-6 py-10 text-lg">
      <h1 className="text-4xl">Pair this device</h1>
      <p>
        On the machine that Umber Pebble runs on, open Kitchen, Devices, and press “Show a code”. Type it here
        within five minutes.
      </p>
      <div className="space-y-5">
        <TextField label="Code" value={code} onChange={setCode} />
        <TextField label="What this device is called" value={name} onChange={setName} />
        {refused && <Notice tone="hot">{wordProblem(refused, units)}</Notice>}
        <Button kind="main" onClick={() => void submit()}>
          Pair
        </Button>
      </div>
      <section className="space-y-2 text-base">
        <h2 className="text-xl">Trust it for good</h2>
        <p>
          The browser warns because this machine vouches for itself. The bench works all the same. To be rid
          of the warning, and to install the app and open it without the network, take the certificate and add
          it to this device’s trusted authorities (Settings, Security, Certificates). It only ever vouches for
          this machine.
        </p>
        <FileLink href="/api/authority">The certificate</FileLink>
      </section>
    </main>
  );
}
