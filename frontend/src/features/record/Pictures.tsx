import { Box, Button, ButtonBase, Dialog, DialogContent, DialogTitle, Typography } from "@mui/material";
import { useState } from "react";

import { clock } from "../../shared/times";
import type { RecordData } from "./types";

/** The still pictures of what was shown, in their order; pressing one goes to its moment. */
export function Pictures({ record, onSeek }: { record: RecordData; onSeek: (seconds: number) => void }) {
  const [open, setOpen] = useState(false);
  if (!record.pictures.length) return null;
  return (
    <>
      <Button size="small" color="inherit" onClick={() => setOpen(true)}>
        Pictures ({record.pictures.length})
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} maxWidth="lg" fullWidth aria-labelledby="pictures-title">
        <DialogTitle id="pictures-title">What was shown</DialogTitle>
        <DialogContent sx={{ display: "grid", gap: 2, gridTemplateColumns: { sm: "1fr 1fr" } }}>
          {record.pictures.map((picture) => (
            <ButtonBase
              key={picture.id}
              onClick={() => {
                setOpen(false);
                onSeek(picture.at);
              }}
              sx={{ fontFamily: "inherit", display: "block", textAlign: "left" }}
            >
              <Box
                component="img"
                src={`/api/meetings/${record.meeting.id}/pictures/${picture.id}`}
                alt={`Shown at ${clock(picture.at)}`}
                loading="lazy"
                sx={{ width: "100%", border: 1, borderColor: "divider" }}
              />
              <Typography variant="body2" color="textSecondary">
                {clock(picture.at)}
              </Typography>
            </ButtonBase>
          ))}
        </DialogContent>
      </Dialog>
    </>
  );
}
