import {
  Alert,
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  LinearProgress,
  MenuItem,
  Paper,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from "@mui/material";
import { useEffect, useState } from "react";

import { WARNINGS } from "./capture/level";
import type { Source } from "./capture/source";
import { Consent } from "./Consent";
import { LineToCall } from "./LineToCall";
import type { RoomState } from "./roomState";
import { useLevelTest } from "./useLevelTest";
import { keepsPictures, setKeepsPictures, type RecorderView } from "./useRecorder";
import type { RoomActions } from "./useRoom";

/** Before the recording: who is there and agrees, where the sound comes from, how loud it is. */
export function Before({ room, recorder, actions }: { room: RoomState; recorder: RecorderView; actions: RoomActions }) {
  const { board } = room;
  const [source, setSource] = useState<Source>("microphone");
  const test = useLevelTest(source !== "computer");
  const [deviceId, setDeviceId] = useState("");
  const [pictures, setPictures] = useState(keepsPictures);
  const begin = () => {
    test.end();
    void recorder.start(source, deviceId);
  };
  useEffect(() => {
    if (source !== "computer") test.begin(deviceId);
  }, [deviceId, source, test.begin]); // eslint-disable-line react-hooks/exhaustive-deps
  return (
    <Box
      sx={{
        maxWidth: 1040,
        mx: "auto",
        p: { xs: 2, sm: 4 },
        display: "grid",
        gap: 3,
        gridTemplateColumns: { md: "1.1fr 1fr" },
        alignItems: "start",
      }}
    >
      <Box sx={{ gridColumn: "1 / -1" }}>
        <Typography variant="h1" sx={{ overflowWrap: "anywhere" }}>
          {board.meeting.title}
        </Typography>
        <Typography color="textSecondary">{board.meeting.kind} · nothing is being recorded yet</Typography>
      </Box>
      <Paper sx={{ p: 2.5 }}>
        <Consent board={board} actions={actions} />
      </Paper>
      <Box sx={{ display: "grid", gap: 3 }}>
        <Paper sx={{ p: 2.5, display: "grid", gap: 2 }}>
          <Typography variant="h2">Where the sound comes from</Typography>
          <ToggleButtonGroup
            exclusive
            fullWidth
            size="small"
            value={source}
            onChange={(_, next: Source | null) => next && setSource(next)}
            aria-label="Source of the sound"
          >
            <ToggleButton value="microphone">Microphone</ToggleButton>
            <ToggleButton value="computer">This computer</ToggleButton>
            <ToggleButton value="both">Both</ToggleButton>
          </ToggleButtonGroup>
          {source !== "computer" && (
            <>
              <TextField
                select
                size="small"
                label="Microphone"
                value={test.devices.some((d) => d.id === deviceId) ? deviceId : ""}
                onChange={(e) => setDeviceId(e.target.value)}
                slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              >
                <MenuItem value="">The usual one</MenuItem>
                {test.devices
                  .filter((d) => d.id && d.id !== "default")
                  .map((d) => (
                    <MenuItem key={d.id} value={d.id}>
                      {d.label}
                    </MenuItem>
                  ))}
              </TextField>
              <LevelMeter level={test.level?.rms ?? null} />
              {test.warning && (
                <Alert severity="warning" variant="outlined">
                  {WARNINGS[test.warning]}
                </Alert>
              )}
              {test.error && (
                <Alert
                  severity="error"
                  variant="outlined"
                  action={
                    <Button color="inherit" onClick={() => test.begin(deviceId)}>
                      Try again
                    </Button>
                  }
                >
                  {test.error}
                </Alert>
              )}
            </>
          )}
          {source !== "microphone" && (
            <Typography variant="body2" color="textSecondary">
              The browser asks what to share. Choose a tab or the whole screen and share its sound too.
            </Typography>
          )}
          {source !== "microphone" && (
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  checked={pictures}
                  onChange={(_, on) => {
                    setPictures(on);
                    setKeepsPictures(on);
                  }}
                />
              }
              label="Keep a still picture whenever something else is shown"
            />
          )}
          {recorder.error && (
            <Alert severity="error" variant="outlined">
              {recorder.error}
            </Alert>
          )}
          <Button
            variant="contained"
            size="large"
            color="error"
            disabled={!board.may_record || recorder.state === "starting"}
            onClick={begin}
          >
            Begin recording
          </Button>
          {!board.may_record && (
            <Typography variant="body2" color="textSecondary">
              Recording can begin when it has been announced, or everybody is ticked.
            </Typography>
          )}
        </Paper>
        <Paper sx={{ p: 2.5 }}>
          <LineToCall board={board} actions={actions} />
        </Paper>
      </Box>
    </Box>
  );
}

/** A bar from -60 to 0 dBFS with its figure. */
export function LevelMeter({ level }: { level: number | null }) {
  const share = level === null ? 0 : Math.max(0, Math.min(100, ((level + 60) / 60) * 100));
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 1.5 }}>
      <LinearProgress variant="determinate" value={share} aria-label="Level of the sound" sx={{ flex: 1, height: 8, borderRadius: 4 }} />
      <Typography variant="body2" sx={{ minWidth: 74, fontVariantNumeric: "tabular-nums", textAlign: "right" }}>
        {level === null ? "no sound" : `${Math.round(level).toString().replace("-", "−")} dBFS`}
      </Typography>
    </Box>
  );
}
