import { Button, Menu, MenuItem, Paper, Typography } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { ExcerptForm } from "../excerpts/ExcerptForm";
import { stretchOf, type Chosen } from "./chosenWords";
import { fragmentFor } from "./fragment";
import { passagesOf, type Passage } from "./lineDraft";
import type { Evidence, Line, RecordData } from "./types";
import type { Player } from "./usePlayer";
import type { RecordActions } from "./useRecord";
import { VoiceItems } from "./VoiceItems";

/** What can be done with the words that are chosen. */
export function ChosenBar({
  record,
  chosen,
  player,
  actions,
  line,
  onAddLine,
  onDone,
}: {
  record: RecordData;
  chosen: Chosen;
  player: Player;
  actions: RecordActions;
  line: Line | undefined;
  onAddLine: (evidence: Passage[]) => void;
  onDone: () => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [keeping, setKeeping] = useState(false);
  const [copying, setCopying] = useState<HTMLElement | null>(null);
  const [minutes, setMinutes] = useState<HTMLElement | null>(null);
  const notice = useNotice();
  const queries = useQueryClient();
  const stretch = stretchOf(record.turns, chosen);
  if (!stretch) return null;
  const one = chosen.turn === chosen.lastTurn;
  const turn = record.turns.find((each) => each.number === chosen.turn);
  const give = (voice: number | null) => {
    setAnchor(null);
    onDone();
    void actions.giveWords(chosen.turn, voice, chosen.first, chosen.last);
  };
  const keep = async (draft: Schemas["NewExcerpt"]) => {
    try {
      await bodyAs(
        "ExcerptOut",
        client.POST("/api/meetings/{meeting_id}/excerpts", { params: { path: { meeting_id: record.meeting.id } }, body: draft }),
      );
      setKeeping(false);
      onDone();
      void queries.invalidateQueries({ queryKey: ["excerpts"] });
      notice({ text: "Kept. It stands among the excerpts.", severity: "info" });
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
    }
  };
  const thenCopy = (run: () => Promise<void>) => () => {
    setCopying(null);
    void run();
  };
  const toMinutes = (run: (evidence: Passage[]) => void) => () => {
    setMinutes(null);
    onDone();
    run(passagesOf(record.turns, chosen));
  };
  const pointAt = (evidence: Passage[], kept: readonly Evidence[]) => {
    const pointed = [...kept.filter((each) => !each.of_answer), ...evidence].map(({ turn, first, last }) => ({ turn, first, last }));
    if (line) void actions.changeLine(line.id, { evidence: pointed });
  };
  const words = async () => {
    const said = passagesOf(record.turns, chosen).map((each) => {
      const voice = record.voices.find((v) => v.id === record.turns.find((t) => t.number === each.turn)?.voice);
      return `${voice?.name ?? ""}: ${each.quote}`;
    });
    try {
      await navigator.clipboard.writeText(said.join("\n"));
      notice({ text: "The words are copied, with who said them.", severity: "info" });
    } catch {
      notice({ text: "The browser does not allow copying here. Use Ctrl C.", severity: "error" });
    }
  };
  const copy = async () => {
    const address = `${location.origin}/meetings/${record.meeting.id}${fragmentFor(stretch.start, stretch.end)}`;
    try {
      await navigator.clipboard.writeText(address);
      notice({ text: "The link to this passage is copied. It opens only to those who may see the meeting.", severity: "info" });
    } catch {
      notice({ text: `The link could not be copied. It is ${address}`, severity: "error" });
    }
  };
  return (
    <Paper
      variant="outlined"
      role="toolbar"
      aria-label="Chosen words"
      sx={{
        position: "absolute",
        bottom: 12,
        left: 12,
        right: 12,
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        gap: 0.5,
        px: 1,
        py: 0.5,
        zIndex: 2,
        "& .MuiButton-root": { px: 0.75, minWidth: 0, whiteSpace: "nowrap" },
      }}
    >
      <Typography variant="body2" color="textSecondary" sx={{ mr: "auto" }}>
        {stretch.count === 1 ? "1 word" : `${stretch.count} words`}
      </Typography>
      <Button size="small" color="inherit" onClick={() => player.play(Math.max(0, stretch.start - 0.1), stretch.end + 0.1)}>
        Hear it
      </Button>
      <Button size="small" color="inherit" onClick={() => player.loop({ start: stretch.start, end: stretch.end })}>
        Repeat it
      </Button>
      <Button size="small" color="inherit" onClick={() => setKeeping(true)}>
        Keep
      </Button>
      {record.minutes && (
        <Button size="small" color="inherit" aria-haspopup="menu" onClick={(e) => setMinutes(e.currentTarget)}>
          To the minutes
        </Button>
      )}
      <Button size="small" color="inherit" aria-haspopup="menu" onClick={(e) => setCopying(e.currentTarget)}>
        Copy
      </Button>
      {one && (
        <Button size="small" color="inherit" aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
          Said by …
        </Button>
      )}
      {one && chosen.first > 0 && (
        <Button
          size="small"
          color="inherit"
          onClick={() => {
            onDone();
            void actions.splitTurn(chosen.turn, chosen.first);
          }}
        >
          Begin a turn here
        </Button>
      )}
      {keeping && (
        <ExcerptForm
          title="Keep this passage"
          meetingId={record.meeting.id}
          draft={{ start: stretch.start, end: stretch.end, title: "", note: "", label: "" }}
          onKeep={keep}
          onClose={() => setKeeping(false)}
        />
      )}
      <Menu open={!!copying} anchorEl={copying} onClose={() => setCopying(null)}>
        <MenuItem onClick={thenCopy(words)}>The words, with who said them</MenuItem>
        <MenuItem onClick={thenCopy(copy)}>The link to this passage</MenuItem>
      </Menu>
      <Menu open={!!minutes} anchorEl={minutes} onClose={() => setMinutes(null)}>
        <MenuItem onClick={toMinutes(onAddLine)}>A new line that rests on these words …</MenuItem>
        {line && (
          <MenuItem onClick={toMinutes((evidence) => pointAt(evidence, line.evidence))}>The chosen line rests on these words, too</MenuItem>
        )}
        {line && <MenuItem onClick={toMinutes((evidence) => pointAt(evidence, []))}>The chosen line rests on these words only</MenuItem>}
      </Menu>
      <Menu open={!!anchor} anchorEl={anchor} onClose={() => setAnchor(null)}>
        <MenuItem disabled sx={{ opacity: "1 !important" }}>
          These words were said by
        </MenuItem>
        {VoiceItems({ voices: record.voices, but: turn?.voice, onChoose: give })}
      </Menu>
    </Paper>
  );
}
