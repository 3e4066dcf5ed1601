import { Alert, Box, Button, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";

import type { Board } from "./types";
import type { RoomActions } from "./useRoom";

const STATES: { [state: string]: string } = {
  calling: "Calling …",
  waiting: "In the waiting room: somebody in the call has to let the line in.",
  listening: "Listening. It has said so in the call’s text channel.",
  "on hold": "The call is on hold.",
  away: "The call has dropped; the line calls again by itself.",
  denied: "The call did not let the line in.",
  ended: "The call has ended.",
  dismissed: "The line has left the call.",
  garbled: "What answers under this link is no call that Nuntius understands. Check the link.",
  unreachable: "Nobody answers under this link. Check it, then try again.",
};

/** A listening line into a call: joined by its link, dismissed and called back at will. */
export function LineToCall({ board, actions, brief = false }: { board: Board; actions: RoomActions; brief?: boolean }) {
  const [link, setLink] = useState(board.line_link);
  const live = ["calling", "waiting", "listening", "on hold", "away"].includes(board.line_state);
  const call = (event: FormEvent) => {
    event.preventDefault();
    void actions.joinCall(link.trim());
  };
  return (
    <Box component="form" onSubmit={call} sx={{ display: "grid", gap: 1.5 }}>
      <Typography variant={brief ? "h3" : "h2"} component="h2">
        {brief ? "Listening line (simulated call)" : "Or listen in on a call"}
      </Typography>
      {!brief && (
        <Typography variant="body2" color="textSecondary">
          A listening line joins by the call’s link, announces in its text channel that it records, and hears everybody. Calls are simulated
          here: the bridge is a small program that comes with Nuntius.
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1 }}>
        <TextField
          size="small"
          fullWidth
          label="Link of the call"
          placeholder="ws://…"
          value={link}
          onChange={(e) => setLink(e.target.value)}
          disabled={live}
        />
        {live ? (
          <Button color="inherit" variant="outlined" onClick={() => void actions.leaveCall()}>
            Dismiss
          </Button>
        ) : (
          <Button type="submit" variant="outlined" disabled={!/^wss?:\/\/\S+$/.test(link.trim())}>
            {board.line_state ? "Call back" : "Join"}
          </Button>
        )}
      </Box>
      {board.line_state && (
        <Alert
          severity={["denied", "unreachable", "garbled", "away"].includes(board.line_state) ? "warning" : "info"}
          variant="outlined"
          role="status"
        >
          {STATES[board.line_state] ?? board.line_state}
        </Alert>
      )}
    </Box>
  );
}
