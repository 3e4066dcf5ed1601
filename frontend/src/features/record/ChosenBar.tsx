import { Button, Menu, MenuItem, Paper, Typography } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { ExcerptForm } from "../excerpts/ExcerptForm";
import { stretchOf, type Chosen } from "./chosenWords";
import { fragmentFor } from "./fragment";
import type { RecordData } from "./types";
import type { Player } from "./usePlayer";
import type { RecordActions } from "./useRecord";
import { VoiceItems } from "./VoiceItems";

/** What can be done with the words that are chosen. */
export function ChosenBar({
  record,
  chosen,
  player,
  actions,
  onDone,
}: {
  record: RecordData;
  chosen: Chosen;
  player: Player;
  actions: RecordActions;
  onDone: () => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [keeping, setKeeping] = useState(false);
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
      <Button size="small" color="inherit" onClick={() => void copy()}>
        Copy link
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
      <Menu open={!!anchor} anchorEl={anchor} onClose={() => setAnchor(null)}>
        <MenuItem disabled sx={{ opacity: "1 !important" }}>
          These words were said by
        </MenuItem>
        {VoiceItems({ voices: record.voices, but: turn?.voice, onChoose: give })}
      </Menu>
    </Paper>
  );
}
