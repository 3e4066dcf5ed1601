import { Box, Button, TextField, Typography } from "@mui/material";
import { useState } from "react";

import type { Schemas } from "../../api/client";
import { useAttempt } from "../../shared/useAttempt";
import { Part } from "./Account";
import type { Account, AccountActions } from "./useAccount";

/** The second factor: turned on with a device, its recovery codes, turned off. */
export function SecondFactor({ account, actions }: { account: Account; actions: AccountActions }) {
  const [secret, setSecret] = useState<Schemas["SecretOut"] | null>(null);
  const [codes, setCodes] = useState<string[]>([]);
  const { busy, error, run } = useAttempt();
  if (codes.length) return <Codes codes={codes} onDone={() => setCodes([])} />;
  if (account.second_factor) return <TurnedOn account={account} actions={actions} onCodes={setCodes} />;
  if (secret)
    return (
      <Begin
        secret={secret}
        actions={actions}
        onCodes={(made) => {
          setSecret(null);
          setCodes(made);
        }}
        onLeave={() => setSecret(null)}
      />
    );
  return (
    <Part
      title="Second factor"
      note="Besides the password, a code from your telephone is asked for. Whoever learns the password alone does not get in."
      error={error}
    >
      <Button variant="outlined" disabled={busy} onClick={() => void run(async () => setSecret(await actions.newSecret()))}>
        Set it up
      </Button>
    </Part>
  );
}

function Begin({
  secret,
  actions,
  onCodes,
  onLeave,
}: {
  secret: Schemas["SecretOut"];
  actions: AccountActions;
  onCodes: (codes: string[]) => void;
  onLeave: () => void;
}) {
  const [code, setCode] = useState("");
  const [password, setPassword] = useState("");
  const { busy, error, run } = useAttempt();
  return (
    <Part
      title="Second factor"
      note="Read this with an app for one-time codes, then type the code that it shows."
      error={error}
      onSubmit={() => void run(async () => onCodes(await actions.turnOn(secret.secret, code, password)))}
    >
      <Box component="img" src={secret.picture} alt="QR code of the secret" sx={{ width: 200, bgcolor: "#ffffff" }} />
      <Typography variant="body2">
        Or type this secret into the app:{" "}
        <Box component="code" sx={{ overflowWrap: "anywhere", fontWeight: 700 }}>
          {secret.secret.replace(/(.{4})/g, "$1 ")}
        </Box>
      </Typography>
      <TextField
        fullWidth
        size="small"
        label="Code"
        value={code}
        onChange={(e) => setCode(e.target.value)}
        autoComplete="one-time-code"
        required
        slotProps={{ htmlInput: { maxLength: 10, inputMode: "numeric" } }}
      />
      <TextField
        fullWidth
        size="small"
        label="Your password"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        required
      />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button type="submit" variant="contained" disabled={busy || !code || !password}>
          Turn it on
        </Button>
        <Button color="inherit" onClick={onLeave}>
          Leave it
        </Button>
      </Box>
    </Part>
  );
}

function Codes({ codes, onDone }: { codes: string[]; onDone: () => void }) {
  return (
    <Part
      title="Recovery codes"
      note="Keep them where you keep important papers. Each lets you in once without the device. They are not shown again."
    >
      <Box component="ul" sx={{ m: 0, pl: 2.5, fontFamily: "monospace", fontSize: "0.9rem", overflowWrap: "anywhere" }}>
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="outlined" onClick={() => void navigator.clipboard.writeText(codes.join("\n"))}>
          Copy them
        </Button>
        <Button variant="contained" onClick={onDone}>
          I have kept them
        </Button>
      </Box>
    </Part>
  );
}

function TurnedOn({ account, actions, onCodes }: { account: Account; actions: AccountActions; onCodes: (codes: string[]) => void }) {
  const [password, setPassword] = useState("");
  const { busy, error, run } = useAttempt();
  return (
    <Part title="Second factor" note={`It is on. ${account.recovery_left} recovery codes are left.`} error={error}>
      <TextField
        fullWidth
        size="small"
        label="Your password"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
      />
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        <Button
          variant="outlined"
          disabled={busy || !password}
          onClick={() => void run(async () => onCodes(await actions.newCodes(password)))}
        >
          New recovery codes
        </Button>
        <Button
          color="inherit"
          disabled={busy || !password}
          onClick={() =>
            void run(async () => {
              await actions.turnOff(password);
              setPassword("");
            })
          }
        >
          Turn it off
        </Button>
      </Box>
    </Part>
  );
}
