import { Button, ListSubheader, Menu, MenuItem } from "@mui/material";
import { useState } from "react";

import type { Schemas } from "../../api/client";
import { useExportActions } from "../exports/useExports";
import { worthALook } from "./doubts";

const FILES: [string, [string, string][]][] = [
  [
    "Minutes",
    [
      ["minutes.docx", "Word processor (DOCX)"],
      ["minutes.html", "Page to print or paste"],
      ["minutes.txt", "Plain text"],
      ["minutes.md", "Markdown"],
      ["minutes.json", "JSON"],
    ],
  ],
  [
    "From the minutes",
    [
      ["actions.ics", "Actions for a calendar (iCalendar)"],
      ["actions.csv", "Actions as a table (CSV)"],
      ["chapters.vtt", "Chapters (WebVTT)"],
      ["chapters.json", "Chapters for podcasts (JSON)"],
      ["map.opml", "Topic map (OPML)"],
    ],
  ],
  [
    "Transcript",
    [
      ["transcript.docx", "Word processor (DOCX)"],
      ["transcript.txt", "Plain text"],
      ["transcript.vtt", "WebVTT"],
      ["transcript.srt", "SRT"],
      ["transcript.ttml", "TTML"],
      ["transcript.csv", "Table (CSV)"],
      ["transcript.json", "JSON"],
      ["voices.rttm", "Who spoke when (RTTM)"],
      ["floor.csv", "The floor in figures (CSV)"],
    ],
  ],
];

const PDF: Record<string, Schemas["MeetingExport"]["kind"]> = { Minutes: "minutes.pdf", Transcript: "transcript.pdf" };

/** The files that can be downloaded. */
export function Files({
  meetingId,
  hasMinutes,
  hasSound,
  hasOriginal,
  doubted,
  onLook,
}: {
  meetingId: string;
  hasMinutes: boolean;
  hasSound: boolean;
  hasOriginal: boolean;
  doubted: number;
  onLook: () => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  const { save } = useExportActions();
  const make = (kind: Schemas["MeetingExport"]["kind"]) => {
    close();
    void save({ of: "meeting", id: meetingId, kind });
  };
  return (
    <>
      <Button size="small" color="inherit" onClick={(e) => setAnchor(e.currentTarget)} aria-haspopup="menu">
        Files
      </Button>
      <Menu open={!!anchor} anchorEl={anchor} onClose={close}>
        {doubted > 0 && (
          <MenuItem
            onClick={() => {
              close();
              onLook();
            }}
            sx={{ color: "warning.main" }}
          >
            {worthALook(doubted)} first
          </MenuItem>
        )}
        {FILES.flatMap(([title, files]) => [
          <ListSubheader key={title} sx={{ lineHeight: 2.2 }}>
            {title}
          </ListSubheader>,
          title in PDF && (
            <MenuItem key={`${title} PDF`} onClick={() => make(PDF[title]!)} disabled={title !== "Transcript" && !hasMinutes}>
              PDF
            </MenuItem>
          ),
          ...files.map(([form, name]) => (
            <MenuItem
              key={form}
              component="a"
              href={`/api/meetings/${meetingId}/files/${form}`}
              {...(form.endsWith("html") ? { target: "_blank" } : { download: true })}
              onClick={close}
              disabled={title !== "Transcript" && !hasMinutes}
            >
              {name}
            </MenuItem>
          )),
        ])}
        <ListSubheader sx={{ lineHeight: 2.2 }}>Recording</ListSubheader>
        <MenuItem component="a" href={`/api/meetings/${meetingId}/original`} download onClick={close} disabled={!hasOriginal}>
          The file as brought in
        </MenuItem>
        <MenuItem onClick={() => make("small.ogg")} disabled={!hasSound}>
          Sound as a small file (Ogg)
        </MenuItem>
        <MenuItem onClick={() => make("whole meeting.zip")}>Whole meeting, for another Nuntius (ZIP)</MenuItem>
      </Menu>
    </>
  );
}
