import { Alert, Box, Button, Chip, List, ListItem, ListItemText, Paper, TextField, Typography } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { body, client, sentenceOf, type Schemas } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";

/** Everybody the team knows, and accounts for those who sign in. */
export function People() {
  const queries = useQueryClient();
  const people = useQuery({ queryKey: ["people"], queryFn: () => body(client.GET("/api/people")) });
  const put = (next: Schemas["PeopleOut"]) => queries.setQueryData(["people"], next);
  if (people.isPending) return <Loading what="the people" />;
  if (people.error) return <Failure error={people.error} onRetry={() => void people.refetch()} />;
  return (
    <Box sx={{ display: "grid", gap: 4, gridTemplateColumns: { md: "1fr 1fr" }, alignItems: "start" }}>
      <Box>
        <Typography color="textSecondary">Names offered when you say who was there and whose voice it is.</Typography>
        <List dense>
          {people.data.people.map((p) => (
            <ListItem key={p.id} divider disableGutters secondaryAction={p.has_account ? <Chip size="small" variant="outlined" label="signs in" /> : null}>
              <ListItemText primary={p.name} />
            </ListItem>
          ))}
        </List>
      </Box>
      <Box sx={{ display: "grid", gap: 3 }}>
        <Form title="Add somebody" fields={{ name: "Name" }} onSend={async (v) => put(await body(client.POST("/api/people", { body: { name: v.name ?? "" } })))} label="Add" />
        <Form
          title="Let somebody sign in" note="Each meeting opens only for the people who were there and whoever runs it."
          fields={{ name: "Name", email: "E-mail", password: "First password (10 characters or more)" }} label="Make the account"
          onSend={async (v) => put(await body(client.POST("/api/people/accounts", { body: { name: v.name ?? "", email: v.email ?? "", password: v.password ?? "" } })))}
        />
      </Box>
    </Box>
  );
}

function Form({ title, note, fields, label, onSend }: { title: string; note?: string; fields: { [key: string]: string }; label: string; onSend: (values: { [key: string]: string }) => Promise<unknown> }) {
  const [values, setValues] = useState<{ [key: string]: string }>({});
  const [error, setError] = useState("");
  const send = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await onSend(values);
      setValues({});
      setError("");
    } catch (problem) {
      setError(sentenceOf(problem));
    }
  };
  return (
    <Paper component="form" onSubmit={(e) => void send(e)} sx={{ p: 2.5, display: "grid", gap: 1.5 }}>
      <Typography variant="h2">{title}</Typography>
      {note && <Typography variant="body2" color="textSecondary">{note}</Typography>}
      {Object.entries(fields).map(([key, name]) => (
        <TextField key={key} size="small" label={name} required type={key === "password" || key === "email" ? key : "text"} value={values[key] ?? ""}
          autoComplete={key === "password" ? "new-password" : "off"} onChange={(e) => setValues({ ...values, [key]: e.target.value })} />
      ))}
      {error && <Alert severity="error" variant="outlined">{error}</Alert>}
      <Button type="submit" variant="outlined">{label}</Button>
    </Paper>
  );
}
