import { Box, Checkbox, Typography } from "@mui/material";
import EditOutlined from "@mui/icons-material/EditOutlined";
import PlayArrow from "@mui/icons-material/PlayArrow";
import { memo } from "react";

import { SERIF } from "../../theme/theme";
import { LineFacts } from "./LineFacts";
import { reasonOf } from "./reasons";
import { TextEditor } from "./TextEditor";
import { ThrowOut } from "./ThrowOut";
import { LineMenu, type LineUses } from "./LineMenu";
import type { Progress } from "./lineDraft";
import { Tool } from "./Tool";
import type { Line, Reason, Stretch } from "./types";
import type { Kept } from "./useRecord";

interface Props {
  line: Line;
  /** Whether the line stands outside of its chapter, so that it may need to say which that is. */
  apart: boolean;
  selected: boolean;
  lit: boolean;
  editing: boolean;
  /** Why the line is worth a look, "" where it is not. */
  doubt: string;
  onSelect: (line: Line) => void;
  onPlay: (line: Line, passage?: Stretch) => void;
  onTick: (line: Line) => void;
  onEdit: (line: Line | null) => void;
  onThrow: (line: Line, reason: Reason | null) => void;
  onKeep: (line: Line, text: string, was: string) => Promise<Kept>;
  onSplit: (line: Line, first: string, second: string) => Promise<Kept>;
  onProgress: (line: Line, progress: Progress) => void;
  uses: LineUses;
  /** Whether it is the first, or the last, of its section. */
  first: boolean;
  last: boolean;
}

/** A line of the minutes: its tick, its text, what it rests on, and one press to hear it. */
export const LineItem = memo(function LineItem({
  line,
  apart,
  selected,
  lit,
  editing,
  doubt,
  onSelect,
  onPlay,
  onTick,
  onEdit,
  onThrow,
  onKeep,
  onSplit,
  onProgress,
  uses,
  first,
  last,
}: Props) {
  const gone = line.state === "superseded" || line.thrown_out !== null || line.progress === "dropped";
  return (
    <Box
      id={`line-${line.id}`}
      data-line={line.id}
      role="listitem"
      aria-current={selected || undefined}
      onClick={() => onSelect(line)}
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "28px minmax(0, 1fr)", md: "28px minmax(0, 1fr) auto" },
        columnGap: 0.5,
        px: 1,
        py: 0.6,
        borderRadius: 1,
        cursor: "pointer",
        bgcolor: selected ? "wash" : undefined,
        boxShadow: lit && !selected ? (t) => `inset 3px 0 0 ${t.palette.primary.main}` : undefined,
        "&:hover .tools, &:focus-within .tools": { opacity: 1 },
      }}
    >
      <Checkbox
        size="small"
        checked={line.checked}
        onChange={() => onTick(line)}
        onClick={(e) => e.stopPropagation()}
        sx={{ p: 0, alignSelf: "start", mt: "2px" }}
        slotProps={{ input: { "aria-label": `Checked: ${line.text}` } }}
      />
      {editing ? (
        <Box sx={{ gridColumn: "2 / -1" }}>
          <TextEditor
            label="Text of this line"
            text={line.text}
            onEnd={() => onEdit(null)}
            onKeep={(text, was) => onKeep(line, text, was)}
            onSplit={(one, two) => onSplit(line, one, two)}
          />
        </Box>
      ) : (
        <Typography
          sx={{
            fontFamily: SERIF,
            lineHeight: 1.5,
            overflowWrap: "anywhere",
            textDecoration: gone ? "line-through" : undefined,
          }}
        >
          {line.text}
        </Typography>
      )}
      {!editing && (
        <Box
          className="tools"
          sx={{
            opacity: { xs: 1, md: selected ? 1 : 0 },
            display: { xs: selected ? "block" : "none", md: "block" }, // a phone has no room for them beside each line
            gridColumn: { xs: "2 / -1", md: "auto" },
            whiteSpace: "nowrap",
            alignSelf: "start",
          }}
        >
          {line.evidence.length > 0 && (
            <Tool label={`Hear what this rests on: ${line.text}`} title="Hear it" onClick={() => onPlay(line)}>
              <PlayArrow sx={{ fontSize: 18 }} />
            </Tool>
          )}
          <ThrowOut line={line} onThrow={onThrow} />
          <Tool label={`Edit: ${line.text}`} title="Edit" onClick={() => onEdit(line)}>
            <EditOutlined sx={{ fontSize: 16 }} />
          </Tool>
          <LineMenu line={line} first={first} last={last} uses={uses} />
        </Box>
      )}
      {!editing && (
        <Box sx={{ minWidth: 0, gridColumn: "2 / -1" }}>
          {(line.kind === "question" || line.kind === "need") && (
            <Typography
              sx={{
                fontFamily: SERIF,
                fontSize: "0.93rem",
                color: line.answer ? "text.primary" : "text.secondary",
                overflowWrap: "anywhere",
              }}
            >
              {line.answer ?? (line.kind === "need" ? "Nothing was said to that." : "The record holds no answer.")}
            </Typography>
          )}
          {line.kind === "decision" && line.answer && (
            <Typography sx={{ fontFamily: SERIF, fontSize: "0.93rem", overflowWrap: "anywhere" }}>Instead: {line.answer}</Typography>
          )}
          {line.remark && (
            <Typography variant="body2" sx={{ overflowWrap: "anywhere", whiteSpace: "pre-line" }}>
              Remark: {line.remark}
            </Typography>
          )}
          <LineFacts line={line} apart={apart} doubt={doubt} onPlay={onPlay} onProgress={onProgress} />
          {selected && line.why && (
            <Typography variant="body2" color="textSecondary" sx={{ fontSize: "0.8rem" }}>
              Here because {reasonOf(line.why)}
            </Typography>
          )}
          {selected && doubt && (
            <Typography variant="body2" sx={{ fontSize: "0.8rem" }}>
              Worth a look: {doubt} Tick it when it is right.
            </Typography>
          )}
        </Box>
      )}
    </Box>
  );
});
