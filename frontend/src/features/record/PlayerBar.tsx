import {
  Box,
  ButtonBase,
  Chip,
  FormControlLabel,
  IconButton,
  MenuItem,
  Select,
  Slider,
  Switch,
  TextField,
  Tooltip,
  Typography,
} from "@mui/material";
import Pause from "@mui/icons-material/Pause";
import PlayArrow from "@mui/icons-material/PlayArrow";
import { useState, type FormEvent } from "react";

import { readClock } from "../../shared/readClock";
import { clock } from "../../shared/times";
import { usePosition, type Position } from "./position";
import { SPEEDS, type Player } from "./usePlayer";
import { Waveform } from "./Waveform";

/** Play, position, waveform, speed, silences. */
export function PlayerBar({
  meetingId,
  player,
  duration,
  hasSound,
  isText,
}: {
  meetingId: string;
  player: Player;
  duration: number;
  hasSound: boolean;
  isText: boolean;
}) {
  if (!hasSound) {
    return (
      <Typography variant="body2" color="textSecondary" sx={{ p: 1.5, px: 3, borderTop: 1, borderColor: "divider" }}>
        {isText
          ? "This record was made from a written transcript; it has no sound."
          : "The sound can be played in a moment, when the recording has been put together."}
      </Typography>
    );
  }
  return (
    <Box
      component="footer"
      aria-label="Player"
      sx={{
        display: "flex",
        alignItems: "center",
        gap: { xs: 1, sm: 2 },
        px: { xs: 1, sm: 2 },
        height: 56,
        borderTop: 1,
        borderColor: "divider",
        flex: "none",
      }}
    >
      <Tooltip title={player.playing ? "Pause (Space)" : "Play (Space)"}>
        <IconButton onClick={player.toggle} aria-label={player.playing ? "Pause" : "Play"} color="primary">
          {player.playing ? <Pause /> : <PlayArrow />}
        </IconButton>
      </Tooltip>
      <Time position={player.position} onSeek={player.seek} />
      <Typography variant="body2" color="textSecondary" noWrap sx={{ display: { xs: "none", sm: "block" } }}>
        of {clock(duration)}
      </Typography>
      <Box sx={{ flex: 1, minWidth: 0, position: "relative" }}>
        {player.failed ? (
          <Typography variant="body2" color="error">
            The sound cannot be played. Load the page again.
          </Typography>
        ) : (
          <>
            <Waveform meetingId={meetingId} duration={duration} position={player.position} onSeek={player.seek} />
            <Seek position={player.position} duration={duration} onSeek={player.seek} />
          </>
        )}
      </Box>
      {player.looping && (
        <Chip
          size="small"
          variant="outlined"
          label={`Repeats ${clock(player.looping.start)} to ${clock(player.looping.end)}`}
          onDelete={() => player.loop(null)}
        />
      )}
      <Select
        size="small"
        variant="standard"
        disableUnderline
        value={player.speed}
        onChange={(e) => player.setSpeed(Number(e.target.value))}
        inputProps={{ "aria-label": "Speed" }}
        renderValue={(v) => `${v}×`}
        sx={{ fontSize: "0.9rem" }}
      >
        {SPEEDS.map((speed) => (
          <MenuItem key={speed} value={speed}>
            {speed}×
          </MenuItem>
        ))}
      </Select>
      <FormControlLabel
        control={<Switch size="small" checked={player.skipping} onChange={(_, on) => player.setSkipping(on)} />}
        label="skip silences"
        sx={{
          m: 0,
          display: { xs: "none", sm: "flex" },
          "& .MuiFormControlLabel-label": { fontSize: "0.85rem", color: "text.secondary", whiteSpace: "nowrap" },
        }}
      />
    </Box>
  );
}

/** Where the sound is; pressed, it takes another time to go to. */
function Time({ position, onSeek }: { position: Position; onSeek: (seconds: number) => void }) {
  const text = usePosition(position, clock);
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null) {
    return (
      <Tooltip title="Go to another time">
        <ButtonBase
          onClick={() => setTyped(text)}
          aria-label={`${text}: go to another time`}
          sx={{ font: "inherit", fontWeight: 700, fontVariantNumeric: "tabular-nums", minWidth: 44, py: 0.5, borderRadius: 0.5 }}
        >
          {text}
        </ButtonBase>
      </Tooltip>
    );
  }
  const seconds = readClock(typed);
  const go = (event: FormEvent) => {
    event.preventDefault();
    if (seconds === null) return;
    onSeek(seconds);
    setTyped(null);
  };
  return (
    <Box component="form" onSubmit={go}>
      <TextField
        autoFocus
        size="small"
        variant="standard"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        error={seconds === null}
        onFocus={(e) => e.currentTarget.querySelector("input")?.select()}
        onBlur={() => setTyped(null)}
        onKeyDown={(e) => e.key === "Escape" && setTyped(null)}
        slotProps={{ htmlInput: { "aria-label": "Time to go to, such as 1:30" } }}
        sx={{ width: 64 }}
      />
    </Box>
  );
}

/** The waveform's twin for the keyboard and for screen readers; seen only when it has the focus. */
function Seek({ position, duration, onSeek }: { position: Position; duration: number; onSeek: (seconds: number) => void }) {
  const now = usePosition(position, Math.floor);
  return (
    <Slider
      size="small"
      min={0}
      max={Math.max(1, Math.floor(duration))}
      step={5}
      value={Math.min(now, duration)}
      onChange={(_, value) => onSeek(Number(value))}
      aria-label="Position"
      getAriaValueText={clock}
      sx={{ position: "absolute", bottom: -8, left: 0, p: 0, opacity: 0, pointerEvents: "none", "&:focus-within": { opacity: 1 } }}
    />
  );
}
