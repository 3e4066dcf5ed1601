import {
  Alert,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  Radio,
  RadioGroup,
  Typography,
} from "@mui/material";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";

import { bodyAs, client, sentenceOf } from "../../api/client";

const LENGTHS = [3, 5, 10] as const;

/** Has the most important passages put together, in the voices of those who spoke. */
export function Digest({ meetingId, onClose }: { meetingId: string; onClose: () => void }) {
  const [minutes, setMinutes] = useState<(typeof LENGTHS)[number]>(5);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const make = useMutation({
    mutationFn: () =>
      bodyAs(
        "CompilationOut",
        client.POST("/api/meetings/{meeting_id}/digest", { params: { path: { meeting_id: meetingId } }, body: { minutes } }),
      ),
    onSuccess: (made) => {
      void queries.invalidateQueries({ queryKey: ["compilations"] });
      void navigate(`/compilations/${made.id}`);
    },
  });
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="digest-title">
      <DialogTitle id="digest-title">Listening digest</DialogTitle>
      <DialogContent>
        <Typography gutterBottom>
          What weighs most in the minutes, heard from those who said it, chapter by chapter. You can change it before you pass it on.
        </Typography>
        <RadioGroup
          row
          value={minutes}
          onChange={(_, value) => setMinutes(LENGTHS.find((each) => each === Number(value)) ?? 5)}
          aria-label="How long it may be"
        >
          {LENGTHS.map((each) => (
            <FormControlLabel key={each} value={each} control={<Radio />} label={`${each} min`} />
          ))}
        </RadioGroup>
        {make.error && (
          <Alert severity="error" variant="outlined">
            {sentenceOf(make.error)}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="contained" disabled={make.isPending} onClick={() => make.mutate()}>
          Make it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
