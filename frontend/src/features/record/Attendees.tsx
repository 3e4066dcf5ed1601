import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  List,
  ListItem,
  ListItemText,
  TextField,
  Typography,
} from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { body, client, type Schemas } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { opener, usePeople } from "../../shared/people";
import { useAttempt } from "../../shared/useAttempt";

/** Who took part in a meeting, which of them may open it, and for whoever runs it: adding and taking off. */
export function Attendees({ meetingId, onClose }: { meetingId: string; onClose: () => void }) {
  const queries = useQueryClient();
  const params = { path: { meeting_id: meetingId } };
  const found = useQuery({
    queryKey: ["attendees", meetingId],
    queryFn: () => body(client.GET("/api/meetings/{meeting_id}/people", { params })),
  });
  const people = usePeople();
  const [name, setName] = useState("");
  const { busy, error, run } = useAttempt();
  const change = (answer: Promise<Schemas["AttendeesOut"]>) =>
    run(async () => {
      queries.setQueryData(["attendees", meetingId], await answer);
      await Promise.all(["record", "meetings", "people"].map((key) => queries.invalidateQueries({ queryKey: [key] })));
    });
  const add = async (event: FormEvent) => {
    event.preventDefault();
    if (await change(body(client.POST("/api/meetings/{meeting_id}/people", { params, body: { name } })))) setName("");
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="attendees-title">
      <DialogTitle id="attendees-title">Who was there, and may open it</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5 }}>
        {found.isPending && <Loading what="the people" />}
        {found.error && <Failure error={found.error} onRetry={() => void found.refetch()} />}
        {found.data && (
          <>
            <Typography variant="body2" color="textSecondary">
              Run by {found.data.run_by}, who may always open it. Of the others, those who sign in may.
            </Typography>
            <List dense disablePadding>
              {found.data.people.map((person) => (
                <ListItem
                  key={person.id}
                  divider
                  disableGutters
                  secondaryAction={
                    found.data.runner && (
                      <Button
                        size="small"
                        color="inherit"
                        aria-label={`Take ${person.name} off`}
                        disabled={busy}
                        onClick={() =>
                          void change(
                            body(
                              client.DELETE("/api/meetings/{meeting_id}/people/{person_id}", {
                                params: { path: { ...params.path, person_id: person.id } },
                              }),
                            ),
                          )
                        }
                      >
                        Take off
                      </Button>
                    )
                  }
                >
                  <ListItemText
                    primary={person.name}
                    secondary={person.account ? `opens it as ${person.account}` : "cannot open it: nobody signs in as them"}
                  />
                </ListItem>
              ))}
            </List>
            {!found.data.people.length && <Typography>Nobody is named yet.</Typography>}
            {found.data.runner && (
              <Box component="form" onSubmit={(e) => void add(e)} sx={{ display: "flex", gap: 1, alignItems: "flex-start" }}>
                <TextField
                  size="small"
                  label="Somebody else was there"
                  value={name}
                  onChange={(e) => setName(e.target.value)}
                  sx={{ flex: 1 }}
                  helperText={opener(name, people.data?.people ?? [])}
                />
                <Button type="submit" disabled={busy || !name.trim()}>
                  Add
                </Button>
              </Box>
            )}
            {error && (
              <Alert severity="error" variant="outlined">
                {error}
              </Alert>
            )}
          </>
        )}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
