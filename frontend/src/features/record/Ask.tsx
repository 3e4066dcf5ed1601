import { Alert, Box, Button, Chip, Dialog, DialogContent, DialogTitle, MenuItem, TextField, Typography } from "@mui/material";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { body, bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { clock } from "../../shared/times";
import { useAnswers } from "../exports/useAnswers";
import { SERIF } from "../../theme/theme";

type Passage = Schemas["Passage"];

interface Asking {
  meetingId: string;
  voices: string[];
  chapters: { title: string; start: number; end: number }[];
  open: boolean;
  onClose: () => void;
  onPlay: (start: number, end: number) => void;
}

/** A question put to the record, one voice or one chapter: an answer with its passages, or the word that there is none. */
export function Ask({ meetingId, voices, chapters, open, onClose, onPlay }: Asking) {
  const { ask } = useAnswers(meetingId);
  const [question, setQuestion] = useState("");
  const [voice, setVoice] = useState("");
  const [chapter, setChapter] = useState("");
  const within = chapters[Number(chapter || "-1")];
  const queries = useQueryClient();
  const ready = useQuery({
    queryKey: ["questions", meetingId],
    enabled: open,
    queryFn: () =>
      bodyAs("QuestionsOut", client.GET("/api/meetings/{meeting_id}/questions", { params: { path: { meeting_id: meetingId } } })),
  }).data;
  const refresh = () => queries.invalidateQueries({ queryKey: ["questions"] });
  const keep = useMutation({
    mutationFn: (text: string) => body(client.POST("/api/setup/questions", { body: { text } })),
    onSuccess: refresh,
  });
  const forget = useMutation({
    mutationFn: (id: number) => body(client.DELETE("/api/setup/questions/{question_id}", { params: { path: { question_id: id } } })),
    onSuccess: refresh,
  });
  const put = (text: string) => {
    setQuestion(text);
    asked.mutate(text);
  };
  const asked = useMutation({
    mutationFn: (question: string) => ask({ question, speaker: voice || null, start: within?.start ?? null, end: within?.end ?? null }),
  });
  const isReady = [...(ready?.template ?? []), ...(ready?.kept.map((each) => each.text) ?? [])].some((text) => text === asked.variables);
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (question.trim()) asked.mutate(question.trim());
  };
  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="ask-title">
      <DialogTitle id="ask-title">Ask the record</DialogTitle>
      <DialogContent>
        <Box component="form" onSubmit={send} sx={{ display: "flex", gap: 1, pt: 1 }}>
          <TextField
            size="small"
            fullWidth
            autoFocus
            label="Question"
            value={question}
            onChange={(e) => setQuestion(e.target.value)}
            slotProps={{ htmlInput: { maxLength: 500 } }}
          />
          <Button type="submit" variant="contained" disabled={!question.trim() || asked.isPending}>
            Ask
          </Button>
        </Box>
        <Box sx={{ display: "flex", gap: 1, mt: 1.5 }}>
          <TextField
            select
            size="small"
            fullWidth
            label="Said by"
            value={voice}
            onChange={(e) => setVoice(e.target.value)}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          >
            <MenuItem value="">Anybody</MenuItem>
            {voices.map((name) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            size="small"
            fullWidth
            label="Chapter"
            value={chapter}
            onChange={(e) => setChapter(e.target.value)}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          >
            <MenuItem value="">The whole meeting</MenuItem>
            {chapters.map((each, i) => (
              <MenuItem key={each.start} value={String(i)}>
                {each.title}
              </MenuItem>
            ))}
          </TextField>
        </Box>
        {ready && (
          <Box role="group" aria-label="Ready to ask" sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, mt: 1.5 }}>
            {ready.template.map((text) => (
              <Chip key={text} size="small" variant="outlined" label={text} onClick={() => put(text)} />
            ))}
            {ready.kept.map(({ id, text, may_change }) => (
              <Chip
                key={id}
                size="small"
                variant="outlined"
                label={text}
                onClick={() => put(text)}
                onDelete={may_change ? () => forget.mutate(id) : undefined}
              />
            ))}
          </Box>
        )}
        <Box aria-live="polite" sx={{ mt: 2, minHeight: 80 }}>
          {asked.isPending && <Typography color="textSecondary">Looking through what was said …</Typography>}
          {asked.error && (
            <Alert severity="error" variant="outlined">
              {sentenceOf(asked.error)}
            </Alert>
          )}
          {asked.data && !isReady && (
            <Button size="small" sx={{ float: "right" }} disabled={keep.isPending} onClick={() => keep.mutate(asked.variables)}>
              Keep this question
            </Button>
          )}
          {asked.data && !asked.data.found && (
            <>
              <Typography sx={{ mb: 1.5 }}>
                The record does not seem to hold that.{asked.data.nearest.length > 0 && " What comes nearest:"}
              </Typography>
              <Passages passages={asked.data.nearest} onPlay={onPlay} />
            </>
          )}
          {asked.data?.found && (
            <>
              <Typography sx={{ fontFamily: SERIF, mb: 1.5, whiteSpace: "pre-line" }}>{asked.data.answer}</Typography>
              <Passages passages={asked.data.passages} onPlay={onPlay} />
            </>
          )}
        </Box>
      </DialogContent>
    </Dialog>
  );
}

function Passages({ passages, onPlay }: { passages: Passage[]; onPlay: (start: number, end: number) => void }) {
  return passages.map((p) => (
    <Box
      key={p.turn}
      sx={{ display: "grid", gridTemplateColumns: "auto 1fr", columnGap: 1.5, py: 0.5, borderTop: 1, borderColor: "divider" }}
    >
      <Button size="small" sx={{ minWidth: 0, p: 0, alignSelf: "start" }} onClick={() => onPlay(p.start, p.end)}>
        {clock(p.start)}
      </Button>
      <Typography variant="body2">
        <b>{p.speaker}</b> {p.quote}
      </Typography>
    </Box>
  ));
}
