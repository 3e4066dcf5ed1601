import { Alert, Box, Button, Chip, List, ListItem, ListItemText, Paper, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";

import { useNotice } from "../../app/notices";
import type { Schemas } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { usePeople } from "../../shared/people";
import { day } from "../../shared/times";
import { useAttempt } from "../../shared/useAttempt";
import { useSession } from "../entry/useSession";
import { PersonDialog } from "./PersonDialog";
import { usePeopleActions, type PeopleActions } from "./usePeopleActions";

type Person = Schemas["PersonOut"];

/** Everybody the team knows, who of them signs in, and for administrators what can be done about it. */
export function People() {
  const people = usePeople();
  const actions = usePeopleActions();
  const { session } = useSession();
  const [opened, setOpened] = useState<number | null>(null);
  if (people.isPending) return <Loading what="the people" />;
  if (people.error) return <Failure error={people.error} onRetry={() => void people.refetch()} />;
  const person = people.data.people.find((each) => each.id === opened);
  return (
    <Box sx={{ display: "grid", gap: 4, gridTemplateColumns: { md: "3fr 2fr" }, alignItems: "start" }}>
      <Box sx={{ minWidth: 0 }}>
        <Typography color="textSecondary">
          Names offered when you say who was there and whose voice it is. A meeting opens only for those who took part in it and sign in,
          and for whoever runs it.
        </Typography>
        <List dense>
          {people.data.people.map((each) => (
            <ListItem key={each.id} divider disableGutters sx={{ gap: 1, flexWrap: "wrap" }}>
              <ListItemText
                primary={each.me ? `${each.name} (you)` : each.name}
                secondary={each.account?.email}
                sx={{ overflowWrap: "anywhere", minWidth: 160 }}
              />
              <Status person={each} />
              {session.administrator && (
                <Button size="small" color="inherit" aria-label={`Change ${each.name}`} onClick={() => setOpened(each.id)}>
                  Change
                </Button>
              )}
            </ListItem>
          ))}
        </List>
      </Box>
      <Box sx={{ display: "grid", gap: 3 }}>
        <Add actions={actions} />
        {session.administrator && people.data.mergings.length > 0 && <Mergings mergings={people.data.mergings} actions={actions} />}
        {!session.administrator && (
          <Typography variant="body2" color="textSecondary">
            Administrators invite people to sign in, and give roles.
          </Typography>
        )}
      </Box>
      {person && (
        <PersonDialog
          key={person.id}
          person={person}
          all={people.data.people}
          mail={session.mail}
          actions={actions}
          onClose={() => setOpened(null)}
        />
      )}
    </Box>
  );
}

function Status({ person }: { person: Person }) {
  if (person.account)
    return <Chip size="small" variant="outlined" label={person.account.role === "administrator" ? "administrator" : "signs in"} />;
  if (person.invited_until) return <Chip size="small" variant="outlined" label={`invited until ${day(person.invited_until)}`} />;
  return null;
}

function Add({ actions }: { actions: PeopleActions }) {
  const [name, setName] = useState("");
  const [word, setWord] = useState("");
  const { busy, error, run } = useAttempt();
  const send = async (event: FormEvent) => {
    event.preventDefault();
    if (await run(() => actions.add(name, word))) {
      setName("");
      setWord("");
    }
  };
  return (
    <Paper component="form" aria-label="Add somebody" onSubmit={(e) => void send(e)} sx={{ p: 2.5, display: "grid", gap: 1.5 }}>
      <Typography variant="h2">Add somebody</Typography>
      <TextField size="small" label="Name" required value={name} onChange={(e) => setName(e.target.value)} />
      <TextField
        size="small"
        label="Told apart by"
        value={word}
        onChange={(e) => setWord(e.target.value)}
        helperText="Only where two people have the same name: an office, a place."
        slotProps={{ htmlInput: { maxLength: 60 } }}
      />
      {error && (
        <Alert severity="error" variant="outlined">
          {error}
        </Alert>
      )}
      <Button type="submit" variant="outlined" disabled={busy || !name.trim()}>
        Add
      </Button>
    </Paper>
  );
}

function Mergings({ mergings, actions }: { mergings: Schemas["MergingOut"][]; actions: PeopleActions }) {
  const notice = useNotice();
  const { error, run } = useAttempt();
  const undo = async (each: Schemas["MergingOut"]) => {
    if (await run(() => actions.undoMerging(each.id)))
      notice({ text: `${each.merged} and ${each.kept} are two people again.`, severity: "info" });
  };
  return (
    <Box component="section" aria-label="Merged">
      <Typography variant="h3" component="h2" sx={{ color: "text.secondary" }}>
        Merged, can be taken back
      </Typography>
      <List dense disablePadding>
        {mergings.map((each) => (
          <ListItem
            key={each.id}
            divider
            disableGutters
            secondaryAction={
              <Button size="small" color="inherit" onClick={() => void undo(each)}>
                Take back
              </Button>
            }
          >
            <ListItemText primary={`${each.merged} into ${each.kept}`} secondary={`until ${day(each.until)}`} />
          </ListItem>
        ))}
      </List>
      {error && (
        <Alert severity="error" variant="outlined">
          {error}
        </Alert>
      )}
    </Box>
  );
}
