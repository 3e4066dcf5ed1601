import { Alert, Box, Button, LinearProgress, List, ListItem, ListItemText, Paper, TextField, Typography } from "@mui/material";
import { useState, type FormEvent, type ReactNode } from "react";

import { useNotice } from "../../app/notices";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { size } from "../../shared/size";
import { moment } from "../../shared/times";
import { useAttempt } from "../../shared/useAttempt";
import { useTitle } from "../../shared/useTitle";
import { useSession } from "../entry/useSession";
import { browserName } from "./browserName";
import { SecondFactor } from "./SecondFactor";
import { useAccount, type Account as AccountData, type AccountActions } from "./useAccount";

/** One's own account: name, address, password, second factor, and where one is signed in. */
export default function Account() {
  useTitle("Your account");
  const { account, ...actions } = useAccount();
  const { signOut } = useSession();
  if (account.isPending) return <Loading what="your account" />;
  if (account.error) return <Failure error={account.error} onRetry={() => void account.refetch()} />;
  return (
    <Box sx={{ maxWidth: 1000, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 3 }}>
      <Box sx={{ display: "flex", alignItems: "start", gap: 2 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Typography variant="h1">Your account</Typography>
          <Typography color="textSecondary" sx={{ overflowWrap: "anywhere" }}>
            {account.data.email} · {account.data.role === "administrator" ? "administers the workspace" : "member of the workspace"}
          </Typography>
        </Box>
        <Button color="inherit" onClick={() => void signOut()} sx={{ display: { sm: "none" } }}>
          Sign out
        </Button>
      </Box>
      <Box sx={{ display: "grid", gap: 3, gridTemplateColumns: { md: "1fr 1fr" }, alignItems: "start" }}>
        <Box sx={{ display: "grid", gap: 3 }}>
          <Name account={account.data} actions={actions} />
          <Address account={account.data} actions={actions} />
          <Password actions={actions} />
        </Box>
        <Box sx={{ display: "grid", gap: 3 }}>
          <SecondFactor account={account.data} actions={actions} />
          <Sessions account={account.data} actions={actions} />
          <Space account={account.data} />
        </Box>
      </Box>
    </Box>
  );
}

/** One part of the account, with a heading and a form. */
export function Part({
  title,
  note,
  onSubmit,
  error,
  children,
}: {
  title: string;
  note?: string;
  onSubmit?: () => void;
  error?: string;
  children: ReactNode;
}) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit?.();
  };
  return (
    <Paper
      component={onSubmit ? "form" : "section"}
      aria-label={title}
      onSubmit={onSubmit && submit}
      sx={{ p: 2.5, display: "grid", gap: 1.5, justifyItems: "start" }}
    >
      <Typography variant="h2">{title}</Typography>
      {note && (
        <Typography variant="body2" color="textSecondary">
          {note}
        </Typography>
      )}
      {children}
      {error && (
        <Alert severity="error" variant="outlined" sx={{ width: "100%" }}>
          {error}
        </Alert>
      )}
    </Paper>
  );
}

/** How much the recordings take up, and how much they may. */
function Space({ account }: { account: AccountData }) {
  const rows = [
    { what: "Brought in or recorded by you", space: account.space },
    { what: "By all of your team", space: account.workspace_space },
  ];
  return (
    <Part title="Space">
      {rows.map(({ what, space }) => (
        <Box key={what} sx={{ width: "100%" }}>
          <Typography variant="body2">
            {what}: {size(space.used)}
            {space.limit !== null && ` of ${size(space.limit)}`}
          </Typography>
          {space.limit !== null && (
            <LinearProgress
              variant="determinate"
              value={Math.min(100, (space.used / space.limit) * 100)}
              aria-label={what}
              sx={{ mt: 0.5 }}
            />
          )}
        </Box>
      ))}
    </Part>
  );
}

function Name({ account, actions }: { account: AccountData; actions: AccountActions }) {
  const [name, setName] = useState(account.name);
  const { busy, error, run } = useAttempt();
  return (
    <Part
      title="Name"
      note="As others see it on meetings and in minutes."
      error={error}
      onSubmit={() => void run(() => actions.rename(name))}
    >
      <TextField fullWidth size="small" label="Your name" required value={name} onChange={(e) => setName(e.target.value)} />
      <Button type="submit" variant="outlined" disabled={busy || !name.trim() || name === account.name}>
        Change the name
      </Button>
    </Part>
  );
}

function Address({ account, actions }: { account: AccountData; actions: AccountActions }) {
  const [email, setEmail] = useState(account.email);
  const [password, setPassword] = useState("");
  const { busy, error, run } = useAttempt();
  const send = async () => {
    if (await run(() => actions.move(email, password))) setPassword("");
  };
  return (
    <Part
      title="E-mail"
      note="You sign in with it, and a forgotten password is renewed through it."
      error={error}
      onSubmit={() => void send()}
    >
      <TextField fullWidth size="small" label="E-mail" type="email" required value={email} onChange={(e) => setEmail(e.target.value)} />
      {email !== account.email && (
        <TextField
          fullWidth
          size="small"
          label="Your password"
          type="password"
          autoComplete="current-password"
          required
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
      )}
      <Button type="submit" variant="outlined" disabled={busy || email === account.email || !password}>
        Change the address
      </Button>
    </Part>
  );
}

function Password({ actions }: { actions: AccountActions }) {
  const [present, setPresent] = useState("");
  const [password, setPassword] = useState("");
  const notice = useNotice();
  const { busy, error, run } = useAttempt();
  const send = async () => {
    if (!(await run(() => actions.changePassword(present, password)))) return;
    setPresent("");
    setPassword("");
    notice({ text: "The new password holds; your other browsers were signed out.", severity: "info" });
  };
  return (
    <Part title="Password" error={error} onSubmit={() => void send()}>
      <TextField
        fullWidth
        size="small"
        label="Present password"
        type="password"
        autoComplete="current-password"
        required
        value={present}
        onChange={(e) => setPresent(e.target.value)}
      />
      <TextField
        fullWidth
        size="small"
        label="New password"
        type="password"
        autoComplete="new-password"
        required
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        helperText="At least 12 characters: several words that do not belong together are best."
      />
      <Button type="submit" variant="outlined" disabled={busy || !present || !password}>
        Change the password
      </Button>
    </Part>
  );
}

function Sessions({ account, actions }: { account: AccountData; actions: AccountActions }) {
  const { error, run } = useAttempt();
  return (
    <Part title="Where you are signed in" error={error}>
      <List dense disablePadding sx={{ width: "100%" }}>
        {account.sessions.map((each) => (
          <ListItem
            key={each.id}
            divider
            disableGutters
            secondaryAction={
              !each.this && (
                <Button
                  size="small"
                  color="inherit"
                  aria-label={`Sign out ${browserName(each.agent)}, ${each.address}`}
                  onClick={() => void run(() => actions.endSession(each.id))}
                >
                  Sign out
                </Button>
              )
            }
          >
            <ListItemText
              primary={`${browserName(each.agent)}${each.this ? " (here)" : ""}`}
              secondary={`${each.address} · last used ${moment(each.seen_at)}`}
            />
          </ListItem>
        ))}
      </List>
      {account.sessions.length > 1 && (
        <Button size="small" onClick={() => void run(actions.endOthers)}>
          Sign out everywhere else
        </Button>
      )}
    </Part>
  );
}
