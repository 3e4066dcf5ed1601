import { Box, Chip, IconButton, InputBase, Link, Popper, Paper, MenuItem, MenuList, Tooltip, Typography } from "@mui/material";
import Close from "@mui/icons-material/Close";
import LockOutlined from "@mui/icons-material/LockOutlined";
import LockOpenOutlined from "@mui/icons-material/LockOpenOutlined";
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";

import { clock } from "../../shared/times";
import { SERIF } from "../../theme/theme";
import { boldened, listed, mentioned, spans } from "./pad";
import type { Board, Mark, Note } from "./types";
import type { PadActions } from "./usePad";

interface Props {
  pad: PadActions;
  board: Board;
  onShow: (at: number) => void;
  onRemoveMark: (id: string) => void;
  onWriteMark: (mark: Mark, text: string) => void;
}

type Row = { type: "note"; note: Note } | { type: "mark"; mark: Mark };

/** A quick pad: a paragraph a row, each tied to the second at which it was begun; marks stand among them. */
export function Pad({ pad, board, onShow, onRemoveMark, onWriteMark }: Props) {
  const [focus, setFocus] = useState<string | null>(null);
  const rows = useMemo(() => ordered(pad.notes, board.marks), [board.marks, pad.notes]);
  const people = useMemo(() => board.there.map((person) => person.name), [board.there]);
  const begin = (after: string | null, text = "") => setFocus(pad.add(after, text));
  return (
    <Box
      role="region"
      aria-label="Notes"
      sx={{ flex: 1, minHeight: 0, overflowY: "auto", px: { xs: 1, sm: 2 }, pt: 1.5, pb: 1, cursor: "text" }}
      onClick={(e) => {
        if (e.target === e.currentTarget) begin(null);
      }}
    >
      {rows.map((row) =>
        row.type === "mark" ? (
          <MarkRow key={row.mark.id} mark={row.mark} onShow={onShow} onRemove={onRemoveMark} onWrite={onWriteMark} />
        ) : (
          <NoteRow
            key={row.note.id}
            note={row.note}
            people={people}
            focused={focus === row.note.id}
            onFocus={setFocus}
            onShow={onShow}
            pad={pad}
            onNext={() => begin(row.note.id, listed(row.note.text).item && listed(row.note.text).rest.trim() ? "- " : "")}
            onBack={() => {
              const index = pad.notes.findIndex((n) => n.id === row.note.id);
              pad.remove(row.note.id);
              setFocus(pad.notes[index - 1]?.id ?? null);
            }}
            onMove={(step) => {
              const index = pad.notes.findIndex((n) => n.id === row.note.id);
              const next = pad.notes[index + step];
              if (next) setFocus(next.id);
            }}
          />
        ),
      )}
      <Box
        component="button"
        onClick={() => begin(null)}
        sx={{
          all: "unset",
          display: "block",
          width: "100%",
          boxSizing: "border-box",
          py: 0.75,
          pl: "60px",
          color: "text.secondary",
          fontFamily: SERIF,
          cursor: "text",
          borderRadius: 1,
          "&:focus-visible": { outline: "2px solid", outlineColor: "primary.main" },
        }}
      >
        {pad.notes.length ? "Another note …" : "Write a note …"}
      </Box>
      {pad.notes.length === 0 && board.marks.length === 0 && (
        <Typography variant="body2" color="textSecondary" sx={{ pl: "60px", pr: 2, mt: 1 }}>
          Each paragraph is tied to the moment you begin it, and leads the minutes in your own words. “- ” makes a list, Ctrl B bold, @
          names a person.
        </Typography>
      )}
    </Box>
  );
}

function ordered(notes: readonly Note[], marks: readonly Mark[]): Row[] {
  const rows: Row[] = notes.map((note) => ({ type: "note", note }));
  for (const mark of marks) {
    const index = rows.findIndex((row) => (row.type === "note" ? row.note.at : row.mark.start) > mark.start);
    rows.splice(index < 0 ? rows.length : index, 0, { type: "mark", mark });
  }
  return rows;
}

const grid = {
  display: "grid",
  gridTemplateColumns: "52px minmax(0, 1fr) auto",
  columnGap: 1,
  alignItems: "start",
  py: 0.25,
  "&:hover .tools, &:focus-within .tools": { opacity: 1 },
} as const;

function Time({ at, onShow }: { at: number; onShow: (at: number) => void }) {
  return (
    <Box
      component="button"
      onClick={() => onShow(at)}
      aria-label={`Show ${clock(at)}`}
      sx={{
        all: "unset",
        cursor: "pointer",
        color: "text.secondary",
        fontSize: "0.8rem",
        pt: "5px",
        fontVariantNumeric: "tabular-nums",
        textAlign: "right",
        "&:focus-visible": { outline: "2px solid", outlineColor: "primary.main" },
      }}
    >
      {clock(at)}
    </Box>
  );
}

function MarkRow({
  mark,
  onShow,
  onRemove,
  onWrite,
}: {
  mark: Mark;
  onShow: (at: number) => void;
  onRemove: (id: string) => void;
  onWrite: (mark: Mark, text: string) => void;
}) {
  return (
    <Box sx={grid} data-mark={mark.id}>
      <Time at={mark.start} onShow={onShow} />
      <Box sx={{ pt: 0.4, display: "flex", alignItems: "center", gap: 1, minWidth: 0 }}>
        <Chip size="small" variant="outlined" color="primary" label={mark.label} sx={{ borderRadius: 1, height: 22 }} />
        <Typography component="span" variant="body2" color="textSecondary" sx={{ whiteSpace: "nowrap" }}>
          {mark.end - mark.start > 1 ? `to ${clock(mark.end)}` : ""}
          {mark.mine ? "" : ` · ${mark.by}`}
        </Typography>
        {mark.mine ? (
          <InputBase
            key={mark.text}
            defaultValue={mark.text}
            placeholder="a few words"
            inputProps={{ "aria-label": `Words for the mark at ${clock(mark.start)}`, maxLength: 500 }}
            sx={{ flex: 1, minWidth: 0, fontFamily: SERIF, "& input": { py: 0 } }}
            onKeyDown={(e) => {
              if (e.key === "Enter" || e.key === "Escape") (e.target as HTMLElement).blur();
            }}
            onBlur={(e) => {
              if (e.target.value.trim() !== mark.text) onWrite(mark, e.target.value.trim());
            }}
          />
        ) : (
          <Typography component="span" sx={{ fontFamily: SERIF }}>
            {mark.text}
          </Typography>
        )}
      </Box>
      {mark.mine ? (
        <Box className="tools" sx={{ opacity: { xs: 0.7, md: 0 } }}>
          <Tool title="Take the mark away" onClick={() => onRemove(mark.id)}>
            <Close sx={{ fontSize: 16 }} />
          </Tool>
        </Box>
      ) : (
        <span />
      )}
    </Box>
  );
}

interface NoteProps {
  note: Note;
  people: readonly string[];
  focused: boolean;
  pad: PadActions;
  onFocus: (id: string | null) => void;
  onShow: (at: number) => void;
  onNext: () => void;
  onBack: () => void;
  onMove: (step: 1 | -1) => void;
}

function NoteRow({ note, people, focused, pad, onFocus, onShow, onNext, onBack, onMove }: NoteProps) {
  const field = useRef<HTMLTextAreaElement>(null);
  const [wanted, setWanted] = useState<string | null>(null);
  useEffect(() => {
    if (focused) field.current?.focus();
  }, [focused]);
  const offered = wanted === null ? [] : people.filter((name) => name.toLowerCase().startsWith(wanted.toLowerCase())).slice(0, 6);
  const put = (text: string, at: number) => {
    pad.write(note.id, text);
    requestAnimationFrame(() => field.current?.setSelectionRange(at, at));
  };
  const mention = (name: string) => {
    const at = field.current?.selectionStart ?? note.text.length;
    const before = note.text.slice(0, at).replace(/@[^@]*$/, `@${name} `);
    setWanted(null);
    put(before + note.text.slice(at), before.length);
  };
  const onKey = (event: KeyboardEvent<HTMLTextAreaElement | HTMLInputElement>) => {
    const area = event.currentTarget;
    if (event.nativeEvent.isComposing) return;
    if (event.key === "Enter" && offered[0]) {
      event.preventDefault();
      mention(offered[0]);
      return;
    }
    if (event.key === "Enter" && !event.shiftKey) {
      event.preventDefault();
      onNext();
      return;
    }
    if (event.key === "Backspace" && !note.text) {
      event.preventDefault();
      onBack();
      return;
    }
    if (event.key === "Escape") {
      if (wanted !== null) setWanted(null);
      else area.blur();
      return;
    }
    if (event.key === "ArrowUp" && (area.selectionStart ?? 0) === 0) {
      onMove(-1);
      return;
    }
    if (event.key === "ArrowDown" && (area.selectionStart ?? 0) === note.text.length) {
      onMove(1);
      return;
    }
    if (event.key === "b" && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      const bold = boldened(note.text, area.selectionStart ?? 0, area.selectionEnd ?? 0);
      pad.write(note.id, bold.text);
      requestAnimationFrame(() => field.current?.setSelectionRange(bold.start, bold.end));
    }
  };
  return (
    <Box sx={grid} data-note={note.id}>
      <Time at={note.at} onShow={onShow} />
      {focused ? (
        <>
          <InputBase
            multiline
            fullWidth
            inputRef={field}
            value={note.text}
            onKeyDown={onKey}
            onBlur={() => {
              setWanted(null);
              onFocus(null);
              if (!note.text.trim()) pad.remove(note.id);
            }}
            onChange={(e) => {
              pad.write(note.id, e.target.value);
              setWanted(mentioned(e.target.value.slice(0, e.target.selectionStart ?? e.target.value.length)));
            }}
            inputProps={{ "aria-label": `Note at ${clock(note.at)}`, maxLength: 4000 }}
            sx={{ fontFamily: SERIF, fontSize: "1rem", lineHeight: 1.5, py: 0.25 }}
          />
          <Popper open={offered.length > 0} anchorEl={field.current} placement="bottom-start" sx={{ zIndex: 9 }}>
            <Paper>
              <MenuList dense>
                {offered.map((name) => (
                  <MenuItem
                    key={name}
                    onMouseDown={(e) => {
                      e.preventDefault();
                      mention(name);
                    }}
                  >
                    {name}
                  </MenuItem>
                ))}
              </MenuList>
            </Paper>
          </Popper>
        </>
      ) : (
        <Shown note={note} onFocus={() => onFocus(note.id)} />
      )}
      <Box className="tools" sx={{ opacity: note.private ? 1 : { xs: 0.7, md: 0 }, whiteSpace: "nowrap" }}>
        <Tool
          title={note.private ? "Yours alone; press to put it into the minutes" : "Goes into the minutes; press to keep it to yourself"}
          onClick={() => pad.keepPrivate(note.id, !note.private)}
        >
          {note.private ? <LockOutlined sx={{ fontSize: 16 }} /> : <LockOpenOutlined sx={{ fontSize: 16 }} />}
        </Tool>
        <Tool title="Take the note off the pad" onClick={() => pad.remove(note.id)}>
          <Close sx={{ fontSize: 16 }} />
        </Tool>
      </Box>
    </Box>
  );
}

function Shown({ note, onFocus }: { note: Note; onFocus: () => void }) {
  const { item, rest } = listed(note.text);
  return (
    <Box
      role="button"
      tabIndex={0}
      onFocus={onFocus}
      onClick={onFocus}
      sx={{
        fontFamily: SERIF,
        lineHeight: 1.5,
        py: 0.25,
        cursor: "text",
        minHeight: 28,
        overflowWrap: "anywhere",
        whiteSpace: "pre-wrap",
        pl: item ? 2 : 0,
        textIndent: item ? "-1em" : 0,
      }}
    >
      {item && "• "}
      {spans(rest).map((span, i) => {
        if (span.kind === "bold") return <b key={i}>{span.text}</b>;
        if (span.kind === "link")
          return (
            <Link key={i} href={span.text} target="_blank" rel="noreferrer noopener" onClick={(e) => e.stopPropagation()}>
              {span.text}
            </Link>
          );
        if (span.kind === "mention")
          return (
            <Box component="span" key={i} sx={{ color: "primary.main", fontWeight: 600 }}>
              {span.text}
            </Box>
          );
        return <span key={i}>{span.text}</span>;
      })}
    </Box>
  );
}

function Tool({ title, onClick, children }: { title: string; onClick: () => void; children: React.ReactNode }) {
  return (
    <Tooltip title={title}>
      <IconButton
        size="small"
        aria-label={title}
        onClick={onClick}
        onMouseDown={(e) => e.preventDefault()}
        sx={{ width: 26, height: 26, p: 0 }}
      >
        {children}
      </IconButton>
    </Tooltip>
  );
}
