import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  InputBase,
  MenuItem,
  TextField,
  Typography,
  useMediaQuery,
  useTheme,
} from "@mui/material";
import PlayArrow from "@mui/icons-material/PlayArrow";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { SERIF } from "../../theme/theme";
import { worthALook } from "./doubts";
import { joined, mailto, type Piece } from "./textDraft";
import { Tool } from "./Tool";
import type { Line } from "./types";

type Form = "message" | "client-message" | "checklist" | "brief" | "handout";
type Manner = "plain" | "warm" | "formal";
const FORMS: [Form, string][] = [
  ["message", "Message to those who were there"],
  ["client-message", "Message to a client"],
  ["checklist", "Checklist"],
  ["brief", "Project brief"],
  ["handout", "Questions and answers"],
];
const MANNERS: [Manner, string][] = [
  ["plain", "plain"],
  ["warm", "warm"],
  ["formal", "formal"],
];

interface Props {
  meetingId: string;
  lines: readonly Line[];
  /** How many lines are worth a look before anything goes out. */
  doubted: number;
  onLook: () => void;
  onPlay: (line: Line) => void;
  onClose: () => void;
}

/** Texts made from the minutes: read, changed, then copied, saved or mailed. Each item leads to what it rests on. */
export function Texts({ meetingId, lines, doubted, onLook, onPlay, onClose }: Props) {
  const narrow = useMediaQuery(useTheme().breakpoints.down("sm"));
  const [form, setForm] = useState<Form>("message");
  const [manner, setManner] = useState<Manner>("plain");
  const text = useQuery({
    queryKey: ["text", meetingId, form, manner],
    staleTime: 0,
    gcTime: 0,
    queryFn: () =>
      bodyAs(
        "TextOut",
        client.GET("/api/meetings/{meeting_id}/texts/{form}", { params: { path: { meeting_id: meetingId, form }, query: { manner } } }),
      ),
  });
  const [changed, setChanged] = useState<{ of: Schemas["TextOut"]; pieces: Piece[] } | null>(null);
  const pieces = changed && changed.of === text.data ? changed.pieces : (text.data?.pieces ?? []);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" fullScreen={narrow} aria-labelledby="texts-title">
      <DialogTitle id="texts-title">Texts that follow the meeting</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 2, pt: "8px !important", alignContent: "start" }}>
        <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { sm: "2fr 1fr" } }}>
          <TextField size="small" select label="Text" value={form} onChange={(e) => setForm(e.target.value as Form)}>
            {FORMS.map(([key, label]) => (
              <MenuItem key={key} value={key}>
                {label}
              </MenuItem>
            ))}
          </TextField>
          {form.endsWith("message") && (
            <TextField size="small" select label="Manner" value={manner} onChange={(e) => setManner(e.target.value as Manner)}>
              {MANNERS.map(([key, label]) => (
                <MenuItem key={key} value={key}>
                  {label}
                </MenuItem>
              ))}
            </TextField>
          )}
        </Box>
        {doubted > 0 && (
          <Alert
            severity="warning"
            variant="outlined"
            action={
              <Button color="inherit" size="small" onClick={onLook}>
                Look
              </Button>
            }
          >
            {worthALook(doubted)} before this goes out.
          </Alert>
        )}
        {text.isPending && <Typography color="textSecondary">Writing it …</Typography>}
        {text.error && (
          <Alert severity="error" variant="outlined">
            {sentenceOf(text.error)}
          </Alert>
        )}
        {text.data && (
          <Draft
            pieces={pieces}
            lines={lines}
            onPlay={onPlay}
            onChange={(at, words) =>
              setChanged({ of: text.data, pieces: pieces.map((piece, n) => (n === at ? { ...piece, text: words } : piece)) })
            }
          />
        )}
      </DialogContent>
      <Take subject={text.data?.subject ?? ""} pieces={pieces} onClose={onClose} />
    </Dialog>
  );
}

interface DraftProps {
  pieces: Piece[];
  lines: readonly Line[];
  onPlay: (line: Line) => void;
  onChange: (at: number, words: string) => void;
}

function Draft({ pieces, lines, onPlay, onChange }: DraftProps) {
  return (
    <Box
      role="group"
      aria-label="The text"
      sx={{ bgcolor: "background.default", border: 1, borderColor: "divider", borderRadius: 1, px: 2, py: 1.5 }}
    >
      {pieces.map((piece, at) => {
        const line = lines.find((each) => piece.lines.includes(each.id));
        return (
          <Box
            key={at}
            sx={{
              display: "grid",
              gridTemplateColumns: "minmax(0, 1fr) 28px",
              alignItems: "start",
              mt: /^(?:- |\[ \])/.test(piece.text) ? 0 : 1,
            }}
          >
            <InputBase
              multiline
              fullWidth
              value={piece.text}
              onChange={(e) => onChange(at, e.target.value)}
              inputProps={{ "aria-label": `Paragraph ${at + 1}` }}
              sx={{ fontFamily: SERIF, p: 0, lineHeight: 1.5, borderRadius: 0.5, "&.Mui-focused": { bgcolor: "wash" } }}
            />
            {line && (
              <Tool label={`Hear what this rests on: ${line.text}`} title="Hear what this rests on" onClick={() => onPlay(line)}>
                <PlayArrow sx={{ fontSize: 18 }} />
              </Tool>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

/** Takes the text away: copied, as a file, or into the mail program. */
function Take({ subject, pieces, onClose }: { subject: string; pieces: Piece[]; onClose: () => void }) {
  const notice = useNotice();
  const whole = joined(pieces);
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(whole);
      notice({ text: "The text is copied.", severity: "info" });
    } catch {
      notice({ text: "The browser did not allow copying. Save the text as a file, or select it by hand.", severity: "error" });
    }
  };
  const file = `data:text/plain;charset=utf-8,${encodeURIComponent(whole)}`;
  return (
    <DialogActions sx={{ px: 3, pb: 2, flexWrap: "wrap", gap: 1 }}>
      <Typography variant="body2" color="textSecondary" sx={{ flex: "1 1 220px" }}>
        Change any paragraph; empty one to leave it out. Nothing is sent from here.
      </Typography>
      <Button variant="contained" disabled={!pieces.length} onClick={() => void copy()}>
        Copy
      </Button>
      <Button component="a" href={file} download={`${subject}.txt`} disabled={!pieces.length}>
        Save as a file
      </Button>
      <Button component="a" href={mailto(subject, whole)} disabled={!pieces.length}>
        Open in the mail program
      </Button>
      <Button color="inherit" onClick={onClose}>
        Close
      </Button>
    </DialogActions>
  );
}
