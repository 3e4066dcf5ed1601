import { Box, Button, Link, Typography } from "@mui/material";
import Add from "@mui/icons-material/Add";
import ContentCopy from "@mui/icons-material/ContentCopy";
import { memo, useEffect, useRef, useState } from "react";

import { LineItem } from "./LineItem";
import type { LineUses } from "./LineMenu";
import type { Progress } from "./lineDraft";
import { Tool } from "./Tool";
import type { Section } from "./sections";
import type { Line, Reason, Stretch } from "./types";
import type { Kept } from "./useRecord";

interface Props {
  sections: Section[];
  /** Whether minutes are still to come. */
  awaited: boolean;
  selected: number | null;
  litLines: ReadonlySet<number>;
  editing: number | null;
  /** Why lines, by their numbers, are worth a look. */
  doubts: ReadonlyMap<number, string>;
  onSelect: (line: Line) => void;
  onPlay: (line: Line, passage?: Stretch) => void;
  onTick: (line: Line) => void;
  onEdit: (line: Line | null) => void;
  onThrow: (line: Line, reason: Reason | null) => void;
  onKeep: (line: Line, text: string, was: string) => Promise<Kept>;
  onSplit: (line: Line, first: string, second: string) => Promise<Kept>;
  onProgress: (line: Line, progress: Progress) => void;
  /** Adds a line to a section; to any where none is given. */
  onAdd: (section: Section | null) => void;
  uses: LineUses;
  onMoved: () => void;
  /** Numbers of the chapters that are told in more detail. */
  detailed: number[];
  onDetail: (detailed: number[]) => Promise<void>;
}

/** The minutes, section by section. */
export const MinutesPane = memo(function MinutesPane({
  sections,
  awaited,
  selected,
  litLines,
  editing,
  doubts,
  onMoved,
  detailed,
  onDetail,
  onAdd,
  ...handlers
}: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (selected !== null) scroller.current?.querySelector(`[data-line="${selected}"]`)?.scrollIntoView({ block: "nearest" });
  }, [selected]);
  useEffect(() => {
    const first = [...litLines][0];
    if (first !== undefined) scroller.current?.querySelector(`[data-line="${first}"]`)?.scrollIntoView({ block: "nearest" });
  }, [litLines]);
  return (
    <Box
      ref={scroller}
      role="region"
      aria-label="Minutes"
      tabIndex={0}
      onScroll={onMoved}
      sx={{ height: "100%", overflowY: "auto", px: { xs: 1, sm: 2 }, pb: 4, outlineOffset: -2 }}
    >
      {sections.map((section) => (
        <Box key={section.key} component="section" aria-label={section.title}>
          <Box
            sx={{
              position: "sticky",
              top: 0,
              bgcolor: "background.default",
              zIndex: 1,
              borderBottom: 1,
              borderColor: "divider",
              display: "flex",
              alignItems: "end",
              gap: 1,
              pt: 1.5,
              mb: 0.5,
              mx: 1,
            }}
          >
            <Typography variant="h3" component="h2" sx={{ color: "text.secondary", flex: 1, minWidth: 0, pb: 0.4 }}>
              {section.title} ({section.lines.length})
            </Typography>
            {section.chapter !== undefined && (
              <Detail chapter={section.chapter} title={section.title} detailed={detailed} onDetail={onDetail} />
            )}
            <Box sx={{ whiteSpace: "nowrap" }}>
              {section.place !== undefined && (
                <Tool label={`Add a line to ${section.title}`} title="Add a line" onClick={() => onAdd(section)}>
                  <Add sx={{ fontSize: 18 }} />
                </Tool>
              )}
              <Tool label={`Copy ${section.title}`} title="Copy this section" onClick={() => handlers.uses.onCopy(section.lines)}>
                <ContentCopy sx={{ fontSize: 15 }} />
              </Tool>
            </Box>
          </Box>
          <Box role="list">
            {section.lines.map((line, at) => (
              <LineItem
                key={line.id}
                line={line}
                apart={section.chapter === undefined}
                selected={selected === line.id}
                lit={litLines.has(line.id)}
                editing={editing === line.id}
                doubt={doubts.get(line.id) ?? ""}
                first={at === 0}
                last={at === section.lines.length - 1}
                {...handlers}
              />
            ))}
          </Box>
        </Box>
      ))}
      {!awaited && (
        <Button size="small" color="inherit" startIcon={<Add />} onClick={() => onAdd(null)} sx={{ m: 1 }}>
          Add a line
        </Button>
      )}
      {sections.length === 0 && (
        <Typography color="textSecondary" sx={{ p: 2 }}>
          {awaited
            ? "The minutes are being written. They appear here in a moment."
            : "The rules found nothing in this talk that belongs into minutes. The transcript is beside."}
        </Typography>
      )}
    </Box>
  );
});

/** Tells one chapter in more detail, or as the others. */
function Detail({
  chapter,
  title,
  detailed,
  onDetail,
}: {
  chapter: number;
  title: string;
  detailed: number[];
  onDetail: (detailed: number[]) => Promise<void>;
}) {
  const [busy, setBusy] = useState(false);
  const more = !detailed.includes(chapter);
  const turn = async () => {
    setBusy(true);
    await onDetail(more ? [...detailed, chapter] : detailed.filter((each) => each !== chapter));
    setBusy(false);
  };
  return (
    <Link
      component="button"
      disabled={busy}
      onClick={() => void turn()}
      aria-label={`${more ? "More of" : "Less of"} ${title}`}
      underline="hover"
      variant="body2"
      sx={{ pb: 0.4 }}
    >
      {busy ? "…" : more ? "more" : "less"}
    </Link>
  );
}
