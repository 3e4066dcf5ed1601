import { Alert, Box, Button, Link, Paper, TextField, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState, type FormEvent, type ReactNode } from "react";
import { Link as RouterLink, matchPath, useLocation, useNavigate } from "react-router";

import { body, client, sentenceOf } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { useTitle } from "../../shared/useTitle";
import { useSession } from "./useSession";

const GOOD = "At least 12 characters: several words that do not belong together are best.";

/** Lets in who is signed in; everybody else finds the sign-in, a link's page, or on a fresh installation the first account. */
export function Entry({ children }: { children: ReactNode }) {
  const { session, loading, error, retry } = useSession();
  const { pathname } = useLocation();
  const invited = matchPath("/join/:token", pathname)?.params.token;
  const renewing = matchPath("/password/:token", pathname)?.params.token;
  if (loading) return <Loading what="Nuntius" />;
  if (error) return <Failure error={error} onRetry={() => void retry()} />;
  if (invited) return <Join token={invited} />;
  if (renewing) return <ChoosePassword token={renewing} />;
  if (session.signed_in) return children;
  if (session.needs_first_account) return <FirstAccount />;
  if (session.second_factor) return <GiveCode />;
  return matchPath("/forgotten", pathname) ? <Forgotten /> : <SignIn demo={session.demo} />;
}

function Card({
  title,
  intro,
  onSubmit,
  busy,
  error,
  label,
  children,
  foot,
}: {
  title: string;
  intro: string;
  onSubmit: () => void;
  busy: boolean;
  error: string;
  label: string;
  children: ReactNode;
  foot?: ReactNode;
}) {
  useTitle(title);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit();
  };
  return (
    <Box component="main" sx={{ minHeight: "100dvh", display: "grid", placeItems: "center", p: 2 }}>
      <Paper component="form" onSubmit={submit} sx={{ p: 4, width: "min(420px, 100%)", display: "grid", gap: 2 }}>
        <Typography variant="h1">{title}</Typography>
        <Typography color="textSecondary">{intro}</Typography>
        {children}
        {error && (
          <Alert severity="error" variant="outlined">
            {error}
          </Alert>
        )}
        <Button type="submit" variant="contained" disabled={busy}>
          {label}
        </Button>
        {foot}
      </Paper>
    </Box>
  );
}

function useForm(send: () => Promise<unknown>) {
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState("");
  const submit = async () => {
    setBusy(true);
    setError("");
    try {
      await send();
    } catch (problem) {
      setError(sentenceOf(problem));
    } finally {
      setBusy(false);
    }
  };
  return { busy, error, onSubmit: () => void submit() };
}

function SignIn({ demo }: { demo: boolean }) {
  const { signIn } = useSession();
  const [email, setEmail] = useState(demo ? "maren@saltmarsh.example" : "");
  const [password, setPassword] = useState(demo ? "low water at noon" : "");
  const form = useForm(() => signIn(email, password));
  return (
    <Card
      title="Nuntius"
      intro={demo ? "The demo of the Saltmarsh Ferry Cooperative; everybody in it is invented." : "Sign in to your team’s meetings."}
      label="Sign in"
      {...form}
      foot={
        <Link component={RouterLink} to="/forgotten" variant="body2">
          The password is forgotten
        </Link>
      }
    >
      <TextField
        label="E-mail"
        type="email"
        autoComplete="username"
        value={email}
        onChange={(e) => setEmail(e.target.value)}
        required
        autoFocus
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        required
      />
    </Card>
  );
}

function GiveCode() {
  const { giveCode, signOut } = useSession();
  const [code, setCode] = useState("");
  const form = useForm(() => giveCode(code));
  return (
    <Card
      title="One more step"
      intro="Type the code that your device shows now. Without the device, one of your recovery codes does."
      label="Go on"
      {...form}
      foot={
        <Link component="button" type="button" variant="body2" sx={{ textAlign: "left" }} onClick={() => void signOut()}>
          Sign in as somebody else
        </Link>
      }
    >
      <TextField
        label="Code"
        value={code}
        onChange={(e) => setCode(e.target.value)}
        autoComplete="one-time-code"
        required
        autoFocus
        slotProps={{ htmlInput: { maxLength: 40 } }}
      />
    </Card>
  );
}

function Forgotten() {
  const [email, setEmail] = useState("");
  const [done, setDone] = useState("");
  const form = useForm(async () => setDone((await body(client.POST("/api/password/forgotten", { body: { email } }))).detail));
  return (
    <Card
      title="A new password"
      intro="A link to choose one goes to your address. It is good for two hours."
      label="Send the link"
      {...form}
      foot={
        <Link component={RouterLink} to="/" variant="body2">
          Back to signing in
        </Link>
      }
    >
      <TextField
        label="E-mail"
        type="email"
        autoComplete="username"
        value={email}
        onChange={(e) => setEmail(e.target.value)}
        required
        autoFocus
      />
      {done && (
        <Alert severity="info" variant="outlined">
          {done}
        </Alert>
      )}
    </Card>
  );
}

function ChoosePassword({ token }: { token: string }) {
  const [password, setPassword] = useState("");
  const navigate = useNavigate();
  const [done, setDone] = useState(false);
  const form = useForm(async () => {
    await body(client.POST("/api/password/choose", { body: { token, password } }));
    setDone(true);
  });
  if (done) {
    return (
      <Card
        title="That is done"
        intro="The new password holds, and every browser was signed out."
        label="Sign in"
        busy={false}
        error=""
        onSubmit={() => void navigate("/")}
      >
        {null}
      </Card>
    );
  }
  return (
    <Card title="A new password" intro="Choose the password that you will sign in with." label="Keep it" {...form}>
      <TextField
        label="New password"
        type="password"
        autoComplete="new-password"
        helperText={GOOD}
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        required
        autoFocus
      />
    </Card>
  );
}

function Join({ token }: { token: string }) {
  const { accept } = useSession();
  const navigate = useNavigate();
  const found = useQuery({
    queryKey: ["invitation", token],
    queryFn: () => body(client.POST("/api/invitations/look", { body: { token } })),
    retry: false,
  });
  const [password, setPassword] = useState("");
  const form = useForm(async () => {
    await accept(token, password);
    await navigate("/");
  });
  if (found.isPending) return <Loading what="the invitation" />;
  if (found.error) {
    return (
      <Card
        title="This link no longer works"
        intro={sentenceOf(found.error)}
        label="To the sign-in"
        busy={false}
        error=""
        onSubmit={() => void navigate("/")}
      >
        {null}
      </Card>
    );
  }
  return (
    <Card
      title={found.data.workspace}
      intro={`You are invited as ${found.data.name}. You will sign in with ${found.data.email}.`}
      label="Begin"
      {...form}
    >
      <TextField
        label="Choose a password"
        type="password"
        autoComplete="new-password"
        helperText={GOOD}
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        required
        autoFocus
      />
    </Card>
  );
}

function FirstAccount() {
  const { begin } = useSession();
  const [account, setAccount] = useState({ workspace: "", name: "", email: "", password: "" });
  const form = useForm(() => begin({ ...account, time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone }));
  const field = (key: keyof typeof account, label: string, type = "text", help = "") => (
    <TextField
      label={label}
      type={type}
      helperText={help}
      value={account[key]}
      required
      onChange={(e) => setAccount({ ...account, [key]: e.target.value })}
    />
  );
  return (
    <Card
      title="Welcome to Nuntius"
      intro="Nobody has an account here yet. The first one is yours and administers the team’s workspace; invite others under Set-up, People."
      label="Begin"
      {...form}
    >
      {field("workspace", "Name of the team")}
      {field("name", "Your name")}
      {field("email", "E-mail", "email")}
      {field("password", "Password", "password", GOOD)}
    </Card>
  );
}
