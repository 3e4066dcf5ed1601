import { alpha, Box, ButtonBase, Tooltip, Typography } from "@mui/material";
import EditOutlined from "@mui/icons-material/EditOutlined";
import { memo, useState, type MouseEvent } from "react";

import { clock } from "../../shared/times";
import { lies } from "./links";
import { usePosition, type Position } from "./position";
import type { Match } from "./search";
import { TextEditor } from "./TextEditor";
import { toolStyle } from "./toolStyle";
import { TurnMenu } from "./TurnMenu";
import { turnEnd, turnStart, turnText, type Doubt, type Mark, type Stretch, type Turn, type Voice } from "./types";
import type { RecordActions } from "./useRecord";
import { VoiceName } from "./VoiceName";

/** Confidence below which a word is lightly marked. */
const UNSURE = 0.45;

interface Props {
  turn: Turn;
  voice: Voice;
  voices: readonly Voice[];
  isLast: boolean;
  goesOn: boolean;
  doubt: Doubt | undefined;
  chat: readonly Mark[];
  lit: readonly Stretch[];
  matches: readonly Match[];
  match: Match | undefined;
  position: Position;
  actions: RecordActions;
  onWord: (seconds: number) => void;
  onChoose: (turn: Turn) => void;
  onSample: (voice: Voice) => void;
}

/** One turn: time, voice, words that can be pressed to hear them, and a way to correct them. */
export const TurnItem = memo(function TurnItem(props: Props) {
  const { turn, voice, goesOn, lit, position, actions } = props;
  const [editing, setEditing] = useState(false);
  const start = turnStart(turn);
  const isLit = lit.some((s) => s.start < turnEnd(turn) && start < s.end);
  const spoken = usePosition(position, (now) => now >= start && now < turnEnd(turn) + 0.3 && now > 0);
  return (
    <Box
      data-turn={turn.number}
      data-lit={isLit || undefined}
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "46px 1fr", sm: "56px 1fr" },
        columnGap: 1.5,
        px: { xs: 1, sm: 2 },
        pt: goesOn ? 0.25 : 1,
        pb: 0.5,
        "&:hover .edit, &:focus-within .edit": { opacity: 1 },
      }}
    >
      <Typography component="button" onClick={() => props.onWord(start)} sx={timeStyle} aria-label={`Hear from ${clock(start)}`}>
        {clock(start)}
      </Typography>
      <Box sx={{ minWidth: 0 }}>
        {!goesOn && <VoiceName voice={voice} voices={props.voices} actions={actions} onSample={() => props.onSample(voice)} />}
        {props.doubt && <DoubtNote doubt={props.doubt} voice={voice} voices={props.voices} />}
        {turn.heard !== null && (
          <Tooltip title={`As heard: ${turn.heard}`}>
            <Typography component="span" variant="caption" tabIndex={0} sx={{ ml: 1, color: "text.secondary", borderBottom: "1px dotted" }}>
              corrected
            </Typography>
          </Tooltip>
        )}
        {!editing && (
          <ButtonBase
            className="edit"
            title="Correct the words"
            aria-label={`Correct the turn at ${clock(start)}`}
            onClick={() => setEditing(true)}
            sx={toolStyle}
          >
            <EditOutlined sx={{ fontSize: 15 }} />
          </ButtonBase>
        )}
        {!editing && <TurnMenu turn={turn} voices={props.voices} position={position} isLast={props.isLast} actions={actions} />}
        {editing ? (
          <TextEditor
            label="Words of this turn"
            text={turnText(turn)}
            onEnd={() => setEditing(false)}
            onKeep={(text, was) => actions.correctTurn(turn.number, text, was)}
          />
        ) : (
          <Box
            onClick={(e) => wordPressed(e, turn, props)}
            sx={{
              lineHeight: 1.5,
              pl: 1,
              ml: "-12px",
              borderLeft: 4,
              borderColor: isLit ? "primary.main" : spoken ? "text.secondary" : "transparent",
              cursor: "text",
              overflowWrap: "anywhere",
            }}
          >
            <Words {...props} />
          </Box>
        )}
        {props.chat.map((mark) => (
          <Typography
            key={mark.id}
            variant="body2"
            sx={{ mt: 0.25, pl: 1, borderLeft: 2, borderColor: "divider", color: "text.secondary", overflowWrap: "anywhere" }}
          >
            Written at {clock(mark.start)}: {mark.text}
          </Typography>
        ))}
      </Box>
    </Box>
  );
});

/** Says where it is unsure who spoke, and where several did. */
function DoubtNote({ doubt, voice, voices }: { doubt: Doubt; voice: Voice; voices: readonly Voice[] }) {
  const others = doubt.over.flatMap((id) => voices.find((each) => each.id === id)?.name ?? []).join(", ");
  const hint = doubt.unsure
    ? `Little of this was heard in the voice of ${voice.name}. Hear it, and give it to another voice if need be.`
    : `${others} can be heard at the same time, so that words may be missing.`;
  return (
    <Tooltip title={hint}>
      <Typography component="span" variant="caption" tabIndex={0} sx={{ ml: 1, color: "text.secondary", borderBottom: "1px dotted" }}>
        {doubt.unsure ? "voice unsure" : `at once with ${others}`}
      </Typography>
    </Tooltip>
  );
}

const timeStyle = {
  all: "unset",
  cursor: "pointer",
  color: "text.secondary",
  fontSize: "0.8rem",
  pt: "2px",
  fontVariantNumeric: "tabular-nums",
  alignSelf: "start",
  "&:focus-visible": { outline: "2px solid", outlineColor: "primary.main" },
} as const;

function wordPressed(event: MouseEvent, turn: Turn, props: Props): void {
  if (document.getSelection()?.isCollapsed === false) return; // words are being chosen, not pressed
  const at = (event.target as HTMLElement).dataset.word;
  props.onChoose(turn);
  const word = at === undefined ? undefined : turn.words[Number(at)];
  if (word) props.onWord(word[1]);
}

function Words({ turn, lit, matches, match, position }: Props) {
  const now = usePosition(position, (seconds) => turn.words.findIndex((w) => seconds >= w[1] && seconds < w[2] + 0.05));
  return turn.words.map((word, i) => {
    const found = matches.some((m) => m.first <= i && i <= m.last);
    const here = match && match.first <= i && i <= match.last;
    return (
      <Box
        component="span"
        key={i}
        data-word={i}
        sx={{
          bgcolor: here
            ? (theme) => alpha(theme.palette.primary.main, 0.42)
            : found
              ? "action.selected"
              : lies(lit, word[1], word[2])
                ? "wash"
                : undefined,
          textDecoration: i === now ? "underline" : word[3] < UNSURE ? "underline dotted" : undefined,
          textDecorationThickness: i === now ? 2 : 1,
          textUnderlineOffset: 3,
          cursor: "pointer",
        }}
      >
        {word[0]}{" "}
      </Box>
    );
  });
}
