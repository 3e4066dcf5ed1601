import { Box, Tooltip, Typography } from "@mui/material";

import { clock, day } from "../../shared/times";
import type { Progress } from "./lineDraft";
import { ProgressMenu } from "./ProgressMenu";
import { OWN_REMARK } from "./reasons";
import { linkStyle } from "./toolStyle";
import type { Evidence, Line, Stretch } from "./types";

interface Props {
  line: Line;
  /** Whether the line stands outside of its chapter, so that it may need to say which that is. */
  apart: boolean;
  /** Why the line is worth a look, "" where it is not. */
  doubt: string;
  onPlay: (line: Line, passage?: Stretch) => void;
  onProgress: (line: Line, progress: Progress) => void;
}

/** What is known of a line beside its text: who and by when, how it came about, and the moments that it rests on. */
export function LineFacts({ line, apart, doubt, onPlay, onProgress }: Props) {
  const own = moments(line.evidence.filter((e) => !e.of_answer));
  const answers = moments(line.evidence.filter((e) => e.of_answer));
  return (
    <Typography component="div" variant="body2" color="textSecondary" sx={{ fontSize: "0.8rem" }}>
      {doubt && (
        <>
          <Tooltip title={`Worth a look: ${doubt}`}>
            <Box component="span" sx={{ color: "warning.main", borderBottom: "1px dotted" }}>
              worth a look
            </Box>
          </Tooltip>
          {" · "}
        </>
      )}
      {line.kind === "action" && (
        <>
          {line.owner.length ? (
            line.owner.join(", ")
          ) : (
            <Box component="span" sx={{ color: "error.main" }}>
              Nobody took this on
            </Box>
          )}
          {" · "}
          {line.due ? `by ${day(line.due)}${line.due_said ? ` (“${line.due_said}”)` : ""}` : "no date named"}
          {" · "}
          <ProgressMenu line={line} onProgress={onProgress} />
          {" · "}
        </>
      )}
      {line.thrown_out && <>thrown out: {line.thrown_out} · </>}
      {line.kind === "need" && <>{line.owner.join(", ")} named this · </>}
      {line.kind === "note" && (
        <>
          {line.owner.join(", ")} {line.why === OWN_REMARK ? "remarked this, it was not said" : "wrote this"}
          {" · "}
        </>
      )}
      {line.state === "superseded" && "no longer holds · "}
      {line.kind === "decision" && line.state === "open" && "put off · "}
      {line.heard !== null && (
        <>
          <Tooltip title={`As written by the rules: ${line.heard}`}>
            <Box component="span" tabIndex={0} sx={{ borderBottom: "1px dotted" }}>
              edited
            </Box>
          </Tooltip>
          {" · "}
        </>
      )}
      {line.by_hand && (own.length ? "added by hand · " : "added by hand, rests on no words")}
      {own.map((e, i) => (
        <Moment key={`${e.start}${i}`} at={e} line={line} onPlay={onPlay} comma={i > 0} />
      ))}
      {answers.length > 0 && (
        <>
          {" "}
          · {line.kind === "decision" ? "replaced" : "answered"}{" "}
          {answers.map((e, i) => (
            <Moment key={`${e.start}${i}`} at={e} line={line} onPlay={onPlay} comma={i > 0} />
          ))}
        </>
      )}
      {apart && line.topic && (
        <>
          {" "}
          <Box component="span" sx={{ display: "inline-block" }}>
            · {line.topic}
          </Box>
        </>
      )}
    </Typography>
  );
}

/** Passages in the order of time, one of those that begin within the same second. */
function moments(evidence: Evidence[]): Evidence[] {
  const first = new Map(evidence.map((e) => [clock(e.start), e]).reverse() as [string, Evidence][]);
  return [...first.values()].sort((a, b) => a.start - b.start);
}

function Moment({
  at,
  line,
  comma,
  onPlay,
}: {
  at: { start: number; end: number; quote: string };
  line: Line;
  comma: boolean;
  onPlay: Props["onPlay"];
}) {
  return (
    <>
      {comma && ", "}
      <Tooltip title={`“${at.quote}”`}>
        <Box
          component="button"
          onClick={(e: React.MouseEvent) => {
            e.stopPropagation();
            onPlay(line, at);
          }}
          aria-label={`Hear ${clock(at.start)}: ${at.quote}`}
          sx={linkStyle}
        >
          {clock(at.start)}
        </Box>
      </Tooltip>
    </>
  );
}
