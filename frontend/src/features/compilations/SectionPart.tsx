import ArrowDownward from "@mui/icons-material/ArrowDownward";
import ArrowUpward from "@mui/icons-material/ArrowUpward";
import Close from "@mui/icons-material/Close";
import DragIndicator from "@mui/icons-material/DragIndicator";
import { Box, Link, TextField, Typography } from "@mui/material";
import { useState, type DragEvent, type KeyboardEvent } from "react";
import { Link as RouterLink } from "react-router";

import { clock, day } from "../../shared/times";
import { fragmentFor } from "../record/fragment";
import { Tool } from "../record/Tool";
import type { Act, Passage, Place, Section } from "./order";

interface Props {
  section: Section;
  number: number;
  count: number;
  dragged: Place | null;
  onDrag: (from: Place | null) => void;
  onDrop: (to: Place) => void;
  act: (act: Act) => void;
}

/** A section: its title and its passages, which are moved by dragging, by buttons, or by Alt and the arrow keys. */
export function SectionPart({ section, number, count, dragged, onDrag, onDrop, act }: Props) {
  const [over, setOver] = useState<number | null>(null);
  const zone = (at: number) => ({
    onDragOver: (e: DragEvent) => {
      if (dragged) {
        e.preventDefault();
        setOver(at);
      }
    },
    onDragLeave: () => setOver(null),
    onDrop: (e: DragEvent) => {
      e.preventDefault();
      setOver(null);
      onDrop({ section: number, at });
    },
  });
  return (
    <Box component="section" aria-label={section.title || `Section ${number + 1}`}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, borderBottom: 1, borderColor: "divider" }}>
        <TextField
          fullWidth
          variant="standard"
          size="small"
          placeholder="Section without a title"
          value={section.title}
          onChange={(e) => act({ type: "name section", section: number, title: e.target.value })}
          slotProps={{
            htmlInput: { "aria-label": `Title of section ${number + 1}`, maxLength: 200 },
            input: { disableUnderline: true, sx: { fontWeight: 700 } },
          }}
        />
        {count > 1 && (
          <Tool
            label={`Dissolve section ${number + 1}`}
            title="Dissolve the section; its passages stay"
            onClick={() => act({ type: "remove section", section: number })}
          >
            <Close sx={{ fontSize: 17 }} />
          </Tool>
        )}
      </Box>
      {section.passages.map((passage, at) => (
        <Box
          key={`${passage.meeting_id} ${passage.start} ${at}`}
          {...zone(at)}
          sx={{ borderTop: 2, borderColor: over === at ? "primary.main" : "transparent" }}
        >
          <Row passage={passage} place={{ section: number, at }} onDrag={onDrag} act={act} />
        </Box>
      ))}
      <Box
        {...zone(section.passages.length)}
        sx={{
          minHeight: section.passages.length ? 10 : 40,
          borderTop: 2,
          borderColor: over === section.passages.length ? "primary.main" : "transparent",
          color: "text.secondary",
          pt: 0.5,
        }}
      >
        {!section.passages.length && "Nothing here yet: drag a passage here."}
      </Box>
    </Box>
  );
}

function Row({
  passage,
  place,
  onDrag,
  act,
}: {
  passage: Passage;
  place: Place;
  onDrag: (from: Place | null) => void;
  act: (act: Act) => void;
}) {
  const keys = (e: KeyboardEvent) => {
    if (!e.altKey || (e.key !== "ArrowUp" && e.key !== "ArrowDown")) return;
    e.preventDefault();
    act({ type: "step", from: place, by: e.key === "ArrowUp" ? -1 : 1 });
  };
  return (
    <Box
      draggable={passage.open}
      onDragStart={(e) => {
        e.dataTransfer.effectAllowed = "move";
        e.dataTransfer.setData("text/plain", passage.title);
        onDrag(place);
      }}
      onDragEnd={() => onDrag(null)}
      onKeyDown={keys}
      sx={{ display: "grid", gridTemplateColumns: "auto 1fr auto", alignItems: "center", gap: 0.5, py: 0.25 }}
    >
      <DragIndicator aria-hidden sx={{ fontSize: 18, color: "text.secondary", cursor: "grab", display: { xs: "none", sm: "block" } }} />
      <Box sx={{ minWidth: 0 }}>
        {passage.open ? (
          <TextField
            fullWidth
            multiline
            variant="standard"
            size="small"
            value={passage.title}
            onChange={(e) => act({ type: "name", from: place, title: e.target.value.replace(/\n/g, " ") })}
            slotProps={{
              htmlInput: { "aria-label": `Title of passage ${place.at + 1}`, maxLength: 200 },
              input: { disableUnderline: true },
            }}
          />
        ) : (
          <Typography color="textSecondary">
            This passage is of a meeting that is not open to you any more; it is left out, and goes with your next change.
          </Typography>
        )}
        {passage.open && (
          <Typography variant="body2" color="textSecondary">
            <Link component={RouterLink} to={`/meetings/${passage.meeting_id}${fragmentFor(passage.start, passage.end)}`}>
              {passage.meeting}, {clock(passage.start)} to {clock(passage.end)}
            </Link>
            {` · ${day(passage.day)}`}
          </Typography>
        )}
      </Box>
      <Box sx={{ display: "flex" }}>
        <Tool label={`Earlier: ${passage.title}`} title="Earlier (Alt ↑)" onClick={() => act({ type: "step", from: place, by: -1 })}>
          <ArrowUpward sx={{ fontSize: 16 }} />
        </Tool>
        <Tool label={`Later: ${passage.title}`} title="Later (Alt ↓)" onClick={() => act({ type: "step", from: place, by: 1 })}>
          <ArrowDownward sx={{ fontSize: 16 }} />
        </Tool>
        <Tool label={`Take out: ${passage.title}`} title="Take out" onClick={() => act({ type: "remove", from: place })}>
          <Close sx={{ fontSize: 16 }} />
        </Tool>
      </Box>
    </Box>
  );
}
