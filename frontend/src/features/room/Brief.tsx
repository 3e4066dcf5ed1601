import { Alert, Box, Button, Link, Paper, Tab, Tabs, TextField, Typography } from "@mui/material";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { useKeys } from "../../app/keys";
import { sentenceOf } from "../../api/client";
import { clock } from "../../shared/times";
import { useAnswers } from "../exports/useAnswers";
import { SERIF } from "../../theme/theme";
import type { Brief as BriefData } from "./types";

type Part = "so_far" | "recent" | "decided" | "promised" | "subjects" | "named" | "ask";

const PARTS: [Part, string, string][] = [
  ["so_far", "so far", ""],
  ["recent", "last 2 min", "Nothing that tells much was said in the last two minutes."],
  ["decided", "decided", "Nothing has been decided so far."],
  ["promised", "promised", "Nobody has taken anything on so far."],
  ["subjects", "subjects", ""],
  ["named", "my name", "Your name has not been said so far."],
  ["ask", "ask", ""],
];

/** For one who has just come in or lost the thread: what has happened so far, every line with its passage. */
export function Brief({ meetingId, onShow }: { meetingId: string; onShow: (at: number) => void }) {
  const { brief } = useAnswers(meetingId);
  const [part, setPart] = useState<Part | null>(null);
  const asked = useQuery({
    queryKey: ["brief", meetingId],
    enabled: part !== null && part !== "ask",
    staleTime: 5000,
    refetchInterval: 20_000,
    queryFn: brief,
  });
  useKeys("Brief", [
    { key: "b", label: "The brief, open or closed", run: () => setPart((p) => (p ? null : "so_far")) },
    { key: "q", label: "Ask what was said so far", run: () => setPart("ask") },
  ]);
  return (
    <Paper
      component="section"
      aria-label="Brief"
      sx={{ m: { xs: 1, sm: 1.5 }, mt: 0, flex: "none", maxHeight: "45%", display: "flex", flexDirection: "column", minHeight: 0 }}
    >
      <Box sx={{ display: "flex", alignItems: "center", pl: 1.5 }}>
        <Typography variant="h3" component="h2">
          Brief
        </Typography>
        <Tabs
          value={part ?? false}
          onChange={(_, next: Part) => setPart(next)}
          variant="scrollable"
          scrollButtons={false}
          aria-label="Parts of the brief"
          sx={{
            ml: 0.5,
            minHeight: 36,
            flex: 1,
            "& .MuiTab-root": { minHeight: 36, minWidth: 0, px: 0.9, py: 0, fontWeight: 400, fontSize: "0.85rem" },
          }}
        >
          {PARTS.map(([key, label]) => (
            <Tab key={key} value={key} label={label} />
          ))}
        </Tabs>
        {part && (
          <Button size="small" color="inherit" onClick={() => setPart(null)}>
            Close
          </Button>
        )}
      </Box>
      {part && (
        <Box sx={{ px: 1.5, pb: 1.25, overflowY: "auto", minHeight: 0 }} aria-live="polite">
          {part === "ask" ? (
            <AskLive meetingId={meetingId} onShow={onShow} />
          ) : (
            <>
              {asked.isPending && <Typography color="textSecondary">Looking through what was said …</Typography>}
              {asked.error && (
                <Alert severity="error" variant="outlined">
                  {sentenceOf(asked.error)}
                </Alert>
              )}
              {asked.data && <BriefPart brief={asked.data} part={part} onShow={onShow} />}
            </>
          )}
        </Box>
      )}
    </Paper>
  );
}

function BriefPart({ brief, part, onShow }: { brief: BriefData; part: Exclude<Part, "ask">; onShow: (at: number) => void }) {
  if (!brief.ready) return <Typography color="textSecondary">Too little has been said yet. {brief.least}</Typography>;
  if (part === "subjects")
    return brief.subjects.map((subject) => <Row key={subject.start} text={subject.title} times={[subject.start]} onShow={onShow} />);
  const rows = brief[part];
  if (!rows.length) return <Typography color="textSecondary">{PARTS.find(([key]) => key === part)?.[2]}</Typography>;
  return rows.map((row, i) => <Row key={i} text={row.text} nobody={row.nobody} times={row.passages.map((p) => p.start)} onShow={onShow} />);
}

function Row({ text, times, nobody, onShow }: { text: string; times: number[]; nobody?: boolean; onShow: (at: number) => void }) {
  return (
    <Box sx={{ py: 0.4, display: "flex", gap: 1, alignItems: "baseline", flexWrap: "wrap" }}>
      <Typography sx={{ fontFamily: SERIF, lineHeight: 1.45, whiteSpace: "pre-line" }}>
        {text}
        {nobody && (
          <Box component="span" sx={{ color: "error.main", fontSize: "0.9em" }}>
            {" "}
            — nobody took this on
          </Box>
        )}
      </Typography>
      {times.map((at, i) => (
        <Link
          key={i}
          component="button"
          variant="body2"
          color="textSecondary"
          onClick={() => onShow(at)}
          aria-label={`Show ${clock(at)}`}
          sx={{ fontVariantNumeric: "tabular-nums" }}
        >
          {clock(at)}
        </Link>
      ))}
    </Box>
  );
}

function AskLive({ meetingId, onShow }: { meetingId: string; onShow: (at: number) => void }) {
  const { askLive } = useAnswers(meetingId);
  const [question, setQuestion] = useState("");
  const asked = useMutation({
    mutationFn: (question: string) => askLive({ question, speaker: null, start: null, end: null }),
  });
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (question.trim()) asked.mutate(question.trim());
  };
  return (
    <>
      <Box component="form" onSubmit={send} sx={{ display: "flex", gap: 1, pt: 1 }}>
        <TextField
          size="small"
          fullWidth
          autoFocus
          label="Question"
          value={question}
          onChange={(e) => setQuestion(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 500 } }}
          onKeyDown={(e) => {
            if (e.key === "Escape") (e.target as HTMLElement).blur();
          }}
        />
        <Button type="submit" disabled={!question.trim() || asked.isPending}>
          Ask
        </Button>
      </Box>
      {asked.error && (
        <Alert severity="error" variant="outlined" sx={{ mt: 1 }}>
          {sentenceOf(asked.error)}
        </Alert>
      )}
      {asked.data && !asked.data.found && (
        <Box sx={{ mt: 1 }}>
          <Row
            text={asked.data.nearest.length ? "Not said so far. Nearest to it:" : "Not said so far."}
            times={asked.data.nearest.map((p) => p.start)}
            onShow={onShow}
          />
        </Box>
      )}
      {asked.data?.found && (
        <Box sx={{ mt: 1 }}>
          <Row text={asked.data.answer ?? ""} times={asked.data.passages.map((p) => p.start)} onShow={onShow} />
        </Box>
      )}
    </>
  );
}
