import { Alert, Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, MenuItem, TextField, Typography } from "@mui/material";
import { useState, type FormEvent, type ReactNode } from "react";

import type { Schemas } from "../../api/client";
import { day } from "../../shared/times";
import { useAttempt } from "../../shared/useAttempt";
import type { PeopleActions } from "./usePeopleActions";

type Person = Schemas["PersonOut"];
type Role = Schemas["RoleIn"]["role"];

interface Props {
  person: Person;
  all: Person[];
  /** Whether mail is sent here. */
  mail: boolean;
  actions: PeopleActions;
  onClose: () => void;
}

/** What an administrator can do with one person: name, invitation, role, merging, removal. */
export function PersonDialog({ person, all, mail, actions, onClose }: Props) {
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="person-title">
      <DialogTitle id="person-title">{person.name}</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 3 }}>
        <Name person={person} actions={actions} />
        {person.account ? <RoleChoice person={person} actions={actions} /> : <Invite person={person} mail={mail} actions={actions} />}
        <Merge person={person} all={all} actions={actions} onDone={onClose} />
        <Remove person={person} actions={actions} onDone={onClose} />
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}

function Part({ title, error, onSubmit, children }: { title: string; error: string; onSubmit: () => void; children: ReactNode }) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit();
  };
  return (
    <Box component="form" aria-label={title} onSubmit={submit} sx={{ display: "grid", gap: 1 }}>
      <Typography variant="h3" component="h3" sx={{ color: "text.secondary" }}>
        {title}
      </Typography>
      {children}
      {error && (
        <Alert severity="error" variant="outlined">
          {error}
        </Alert>
      )}
    </Box>
  );
}

const ROW = { display: "flex", gap: 1, alignItems: "flex-start", flexWrap: "wrap" } as const;

function Name({ person, actions }: { person: Person; actions: PeopleActions }) {
  const [name, setName] = useState(person.plain);
  const [word, setWord] = useState(person.distinction);
  const { busy, error, run } = useAttempt();
  const same = name === person.plain && word === person.distinction;
  return (
    <Part title="Name" error={error} onSubmit={() => void run(() => actions.call(person.id, name, word))}>
      <Box sx={ROW}>
        <TextField size="small" label="Name" required value={name} onChange={(e) => setName(e.target.value)} sx={{ flex: "1 1 180px" }} />
        <TextField
          size="small"
          label="Told apart by"
          value={word}
          onChange={(e) => setWord(e.target.value)}
          sx={{ flex: "1 1 120px" }}
          slotProps={{ htmlInput: { maxLength: 60 } }}
        />
        <Button type="submit" disabled={busy || same || !name.trim()}>
          Change
        </Button>
      </Box>
    </Part>
  );
}

function Invite({ person, mail, actions }: { person: Person; mail: boolean; actions: PeopleActions }) {
  const [email, setEmail] = useState("");
  const [role, setRole] = useState<Role>("member");
  const [link, setLink] = useState("");
  const { busy, error, run } = useAttempt();
  return (
    <Part
      title="Invite to sign in as this very person"
      error={error}
      onSubmit={() => void run(async () => setLink(await actions.invite(person.id, email, role)))}
    >
      {person.invited_until && !link && (
        <Box sx={{ ...ROW, alignItems: "center" }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            An invitation is on its way; it is good until {day(person.invited_until)}.
          </Typography>
          <Button size="small" color="inherit" onClick={() => void run(() => actions.withdraw(person.id))}>
            Withdraw it
          </Button>
        </Box>
      )}
      <Box sx={ROW}>
        <TextField
          size="small"
          label="E-mail"
          type="email"
          required
          value={email}
          onChange={(e) => setEmail(e.target.value)}
          sx={{ flex: "1 1 200px" }}
        />
        <RoleField role={role} onChange={setRole} />
        <Button type="submit" disabled={busy || !email.trim()}>
          Invite
        </Button>
      </Box>
      {link && (
        <Alert
          severity="info"
          variant="outlined"
          action={
            <Button size="small" color="inherit" onClick={() => void navigator.clipboard.writeText(link)}>
              Copy
            </Button>
          }
        >
          {mail ? "The invitation goes out by mail. This is its link, shown only now: " : "Pass this link on; it is shown only now: "}
          <Box component="span" sx={{ overflowWrap: "anywhere", fontWeight: 700 }}>
            {link}
          </Box>{" "}
          It works once, within seven days.
        </Alert>
      )}
    </Part>
  );
}

function RoleField({ role, onChange }: { role: Role; onChange: (role: Role) => void }) {
  return (
    <TextField select size="small" label="Role" value={role} onChange={(e) => onChange(e.target.value as Role)} sx={{ width: 150 }}>
      <MenuItem value="member">Member</MenuItem>
      <MenuItem value="administrator">Administrator</MenuItem>
    </TextField>
  );
}

function RoleChoice({ person, actions }: { person: Person; actions: PeopleActions }) {
  const [role, setRole] = useState<Role>(person.account?.role ?? "member");
  const { busy, error, run } = useAttempt();
  return (
    <Part
      title={`Signs in as ${person.account?.email ?? ""}`}
      error={error}
      onSubmit={() => void run(() => actions.giveRole(person.id, role))}
    >
      <Box sx={ROW}>
        <RoleField role={role} onChange={setRole} />
        <Button type="submit" disabled={busy || role === person.account?.role}>
          Give this role
        </Button>
      </Box>
      <Typography variant="body2" color="textSecondary">
        Administrators manage people, roles and what holds for the workspace. No role opens a meeting.
      </Typography>
    </Part>
  );
}

function Merge({ person, all, actions, onDone }: { person: Person; all: Person[]; actions: PeopleActions; onDone: () => void }) {
  const [into, setInto] = useState("");
  const { busy, error, run } = useAttempt();
  const send = async () => {
    if (await run(() => actions.merge(person.id, Number(into)))) onDone();
  };
  return (
    <Part title="Is the same person as somebody else here" error={error} onSubmit={() => void send()}>
      <Box sx={ROW}>
        <TextField select size="small" label="Is really" value={into} onChange={(e) => setInto(e.target.value)} sx={{ flex: "1 1 200px" }}>
          {all
            .filter((each) => each.id !== person.id)
            .map((each) => (
              <MenuItem key={each.id} value={String(each.id)}>
                {each.name}
                {each.account ? ` · ${each.account.email}` : ""}
              </MenuItem>
            ))}
        </TextField>
        <Button type="submit" disabled={busy || !into}>
          Merge
        </Button>
      </Box>
      <Typography variant="body2" color="textSecondary">
        Meetings, voices, consents, actions and an account follow. It can be taken back for thirty days.
      </Typography>
    </Part>
  );
}

function Remove({ person, actions, onDone }: { person: Person; actions: PeopleActions; onDone: () => void }) {
  const [sure, setSure] = useState(false);
  const { busy, error, run } = useAttempt();
  const send = async () => {
    if (!sure) setSure(true);
    else if (await run(() => actions.remove(person.id))) onDone();
  };
  return (
    <Part title="Remove" error={error} onSubmit={() => void send()}>
      <Typography variant="body2">
        {person.account ? "The account ends at once, and the name is no longer offered." : "The name is no longer offered."} What this
        person said and did in meetings stays.
      </Typography>
      <Box>
        <Button type="submit" color="error" variant={sure ? "contained" : "outlined"} disabled={busy}>
          {sure ? `Yes, remove ${person.name}` : "Remove …"}
        </Button>
      </Box>
    </Part>
  );
}
