import { Box, Button, ButtonBase, Typography } from "@mui/material";

import type { Board } from "./types";
import { type useMarks } from "./useMarks";
import { WORTH_KEEPING } from "../../shared/markLabels";
import type { RecorderView } from "./useRecorder";

/** Marks by hand, the captions window, and what still waits on this computer. */
export function LiveFoot({
  board,
  recorder,
  marks,
  running,
  onForget,
}: {
  board: Board;
  recorder: RecorderView;
  marks: ReturnType<typeof useMarks>;
  running: boolean;
  onForget: (() => void) | undefined;
}) {
  const captions = () => window.open(`/meetings/${board.meeting.id}/captions`, "nuntius-captions", "popup,width=1100,height=360");
  const waiting = recorder.waiting.parts;
  return (
    <Box
      component="footer"
      aria-label="Marks"
      sx={{
        display: "flex",
        alignItems: "center",
        gap: { xs: 0.5, sm: 1.5 },
        px: { xs: 1, sm: 3 },
        minHeight: 52,
        borderTop: 1,
        borderColor: "divider",
        flex: "none",
        flexWrap: { xs: "wrap", md: "nowrap" },
        py: 0.5,
      }}
    >
      <MarkButton keyName="M" label="mark" more=" what was just said" disabled={!running} onPress={() => marks.markNow(WORTH_KEEPING)} />
      {board.labels.map((label, i) => (
        <MarkButton key={label} keyName={String(i + 1)} label={label} disabled={!running} onPress={() => marks.markNow(label)} />
      ))}
      <Typography variant="body2" color="textSecondary" sx={{ display: { xs: "none", lg: "block" }, whiteSpace: "nowrap" }}>
        {marks.stretch ? `marking “${marks.stretch}” while you hold` : "hold a digit for a stretch"}
      </Typography>
      <Box sx={{ ml: "auto", display: "flex", alignItems: "center", gap: 1 }}>
        {onForget && (
          <Button size="small" color="inherit" onClick={onForget} sx={{ color: "text.secondary", whiteSpace: "nowrap" }}>
            Forget the last minute
          </Button>
        )}
        <Button
          size="small"
          color="inherit"
          onClick={captions}
          sx={{ color: "text.secondary", whiteSpace: "nowrap", display: { xs: "none", sm: "inline-flex" } }}
        >
          Captions window
        </Button>
        {(recorder.state !== "idle" || waiting > 0) && (
          <Typography variant="body2" color="textSecondary" sx={{ whiteSpace: "nowrap" }}>
            kept on this computer: {waiting} {waiting === 1 ? "part" : "parts"} waiting
          </Typography>
        )}
      </Box>
    </Box>
  );
}

function MarkButton({
  keyName,
  label,
  more,
  disabled,
  onPress,
}: {
  keyName: string;
  label: string;
  more?: string;
  disabled: boolean;
  onPress: () => void;
}) {
  return (
    <ButtonBase
      disabled={disabled}
      onClick={onPress}
      sx={{
        fontFamily: "inherit",
        px: 0.75,
        py: 0.75,
        borderRadius: 1,
        gap: 0.6,
        whiteSpace: "nowrap",
        opacity: disabled ? 0.5 : 1,
        "&:hover": { bgcolor: "action.hover" },
      }}
    >
      <Box component="b" aria-hidden sx={{ display: { xs: keyName === "M" ? "none" : "inline", sm: "inline" } }}>
        {keyName}
      </Box>{" "}
      <Typography component="span" variant="body2">
        {label}
        {more && (
          <Box component="span" sx={{ display: { xs: "none", sm: "inline" } }}>
            {more}
          </Box>
        )}
      </Typography>
    </ButtonBase>
  );
}
