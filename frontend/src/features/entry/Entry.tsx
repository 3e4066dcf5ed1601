import { Alert, Box, Button, Paper, TextField, Typography } from "@mui/material";
import { useState, type FormEvent, type ReactNode } from "react";

import { sentenceOf } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { useSession } from "./useSession";

/** Lets in who is signed in; everybody else finds the sign-in, a fresh installation its first account. */
export function Entry({ children }: { children: ReactNode }) {
  const { session, loading, error, retry } = useSession();
  if (loading) return <Loading what="Nuntius" />;
  if (error) return <Failure error={error} onRetry={() => void retry()} />;
  if (session.signed_in) return children;
  return session.needs_first_account ? <FirstAccount /> : <SignIn demo={session.demo} />;
}

function Card({ title, intro, onSubmit, busy, error, label, children }: {
  title: string;
  intro: string;
  onSubmit: () => void;
  busy: boolean;
  error: string;
  label: string;
  children: ReactNode;
}) {
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
        {error && <Alert severity="error" variant="outlined">{error}</Alert>}
        <Button type="submit" variant="contained" disabled={busy}>{label}</Button>
      </Paper>
    </Box>
  );
}

function useForm(send: () => Promise<void>) {
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
    <Card title="Nuntius" intro={demo ? "The demo of the Saltmarsh Ferry Cooperative; everybody in it is invented." : "Sign in to your team’s meetings."} label="Sign in" {...form}>
      <TextField label="E-mail" type="email" autoComplete="username" value={email} onChange={(e) => setEmail(e.target.value)} required autoFocus />
      <TextField label="Password" type="password" autoComplete="current-password" value={password} onChange={(e) => setPassword(e.target.value)} required />
    </Card>
  );
}

function FirstAccount() {
  const { begin } = useSession();
  const [account, setAccount] = useState({ workspace: "", name: "", email: "", password: "" });
  const form = useForm(() => begin({ ...account, time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone }));
  const field = (key: keyof typeof account, label: string, type = "text", help = "") => (
    <TextField label={label} type={type} helperText={help} value={account[key]} required onChange={(e) => setAccount({ ...account, [key]: e.target.value })} />
  );
  return (
    <Card title="Welcome to Nuntius" intro="Nobody has an account here yet. The first one is yours; add others under People." label="Begin" {...form}>
      {field("workspace", "Name of the team")}
      {field("name", "Your name")}
      {field("email", "E-mail", "email")}
      {field("password", "Password", "password", "At least 10 characters.")}
    </Card>
  );
}
