import { Alert, Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { sentenceOf, type Schemas } from "../../api/client";
import { clock } from "../../shared/times";
import { useAnswers } from "../exports/useAnswers";

interface Props {
  meetingId: string;
  onPlay: (start: number, end: number) => void;
  onPutRight: (term: string, heard: string, right: boolean) => Promise<unknown>;
  onClose: () => void;
}

/** Words that may be misheard names or terms, with every place; nothing is changed before somebody says so. */
export function Misheard({ meetingId, onPlay, onPutRight, onClose }: Props) {
  const { misheard } = useAnswers(meetingId);
  const found = useQuery({
    queryKey: ["misheard", meetingId],
    staleTime: 0,
    gcTime: 0,
    queryFn: misheard,
  });
  const decide = async (each: Schemas["MishearingOut"], right: boolean) => {
    await onPutRight(each.term, each.heard, right);
    await found.refetch();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="misheard-title">
      <DialogTitle id="misheard-title">Misheard names and terms</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 2 }}>
        <Typography variant="body2" color="textSecondary">
          Words that sound or look like a name of your people or a term of your vocabulary. What you put right is right in the transcript,
          the lines and the titles; it can be taken back.
        </Typography>
        <Box aria-live="polite" sx={{ display: "grid", gap: 2 }}>
          {found.isPending && <Typography color="textSecondary">Looking through what was said …</Typography>}
          {found.error && (
            <Alert severity="error" variant="outlined">
              {sentenceOf(found.error)}
            </Alert>
          )}
          {found.data?.found.length === 0 && <Typography>Nothing here looks like a misheard name or term.</Typography>}
          {found.data?.found.map((each) => (
            <Found key={`${each.term} ${each.heard}`} found={each} onPlay={onPlay} onDecide={(right) => decide(each, right)} />
          ))}
        </Box>
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose}>Done</Button>
      </DialogActions>
    </Dialog>
  );
}

function Found({
  found,
  onPlay,
  onDecide,
}: {
  found: Schemas["MishearingOut"];
  onPlay: Props["onPlay"];
  onDecide: (right: boolean) => Promise<void>;
}) {
  const [busy, setBusy] = useState(false);
  const decide = async (right: boolean) => {
    setBusy(true);
    await onDecide(right);
    setBusy(false);
  };
  const count = found.places.length === 1 ? "once" : `${found.places.length} times`;
  return (
    <Box role="group" aria-label={`${found.heard}, perhaps ${found.term}`} sx={{ borderTop: 1, borderColor: "divider", pt: 1.5 }}>
      <Typography>
        “{found.heard}” {count}: <b>{found.term}</b>?
        {found.known && (
          <Typography component="span" variant="body2" color="textSecondary">
            {" "}
            put right before
          </Typography>
        )}
      </Typography>
      {found.places.map((place) => (
        <Box key={`${place.turn} ${place.start}`} sx={{ display: "grid", gridTemplateColumns: "auto 1fr", columnGap: 1.5, py: 0.25 }}>
          <Button
            size="small"
            sx={{ minWidth: 0, p: 0, alignSelf: "start" }}
            onClick={() => onPlay(place.start, place.end)}
            aria-label={`Hear ${clock(place.start)}: ${place.quote}`}
          >
            {clock(place.start)}
          </Button>
          <Typography variant="body2">
            <b>{place.speaker}</b> … {place.quote} …
          </Typography>
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 1, mt: 0.5 }}>
        <Button size="small" variant="outlined" disabled={busy} onClick={() => void decide(true)}>
          Write {found.term}
        </Button>
        <Button size="small" color="inherit" disabled={busy} onClick={() => void decide(false)}>
          “{found.heard}” is right
        </Button>
      </Box>
    </Box>
  );
}
