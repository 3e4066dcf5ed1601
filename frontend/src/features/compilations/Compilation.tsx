import Undo from "@mui/icons-material/Undo";
import { Alert, Box, Button, FormControlLabel, IconButton, Menu, MenuItem, Switch, TextField, Tooltip, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";

import { bodyAs, client, type Schemas } from "../../api/client";
import { useKeys } from "../../app/keys";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { lasting } from "../../shared/times";
import { useLeaveWarning } from "../../shared/useLeaveWarning";
import { SERIF } from "../../theme/theme";
import { useTitle } from "../../shared/useTitle";
import { useExportActions } from "../exports/useExports";
import { lengthOf, type Place } from "./order";
import { Played } from "./Played";
import { SectionPart } from "./SectionPart";
import { useCompilation } from "./useCompilation";

const MADE: [Schemas["CompilationExport"]["kind"], string][] = [
  ["compilation.ogg", "Sound (Ogg)"],
  ["compilation.m4a", "Sound (M4A)"],
  ["compilation.mp4", "Picture with captions (MP4)"],
];
const FILES: [string, string][] = [
  ["captions.vtt", "Captions (WebVTT)"],
  ["chapters.vtt", "Chapters (WebVTT)"],
  ["txt", "Text"],
];

/** Passages in titled sections, put in order, heard and downloaded as one. */
export default function Compilation() {
  const id = Number(useParams().compilationId);
  const query = useQuery({
    queryKey: ["compilation", id],
    queryFn: () => bodyAs("CompilationOut", client.GET("/api/compilations/{compilation_id}", { params: { path: { compilation_id: id } } })),
    staleTime: Infinity,
  });
  if (query.isPending) return <Loading what="the compilation" />;
  if (query.error) return <Failure error={query.error} onRetry={() => void query.refetch()} />;
  return <Open key={id} kept={query.data} />;
}

function Open({ kept }: { kept: Schemas["CompilationOut"] }) {
  const { draft, canUndo, act, saving, version, again } = useCompilation(kept);
  useTitle(draft.title);
  const { save } = useExportActions();
  const [dragged, setDragged] = useState<Place | null>(null);
  const [hearing, setHearing] = useState<number | null>(null);
  const [files, setFiles] = useState<HTMLElement | null>(null);
  const seconds = lengthOf(draft.sections);
  const ready = seconds > 0 && saving.state === "saved";
  useLeaveWarning(saving.state !== "saved");
  useKeys("Compilation", [{ key: "z", ctrl: true, label: "Take the last change back", run: () => act({ type: "undo" }) }]);
  const drop = (to: Place) => {
    if (dragged) act({ type: "move", from: dragged, to });
    setDragged(null);
  };
  return (
    <Box sx={{ maxWidth: 860, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 2, "& > *": { minWidth: 0 } }}>
      <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", gap: 1 }}>
        <Box sx={{ flex: "1 1 280px", minWidth: 0 }}>
          <Typography component="h1" sx={{ position: "absolute", left: -9999 }}>
            {draft.title}
          </Typography>
          <TextField
            fullWidth
            multiline
            variant="standard"
            value={draft.title}
            onChange={(e) => act({ type: "retitle", title: e.target.value.replace(/\n/g, " ") })}
            slotProps={{
              htmlInput: { "aria-label": "Title", maxLength: 200 },
              input: { sx: { fontFamily: SERIF, fontSize: "1.5rem", fontWeight: 600 } },
            }}
          />
          <Typography variant="body2" color="textSecondary" role="status">
            {lasting(seconds)}
            {" · "}
            {saving.state === "saved" ? "kept" : saving.state === "saving" ? "is being kept …" : "not kept"}
            {" · "}
            <RouterLink to="/excerpts" style={{ color: "inherit" }}>
              All excerpts
            </RouterLink>
          </Typography>
        </Box>
        <Tooltip title="Take back (Ctrl Z)">
          <span>
            <IconButton size="small" aria-label="Take the last change back" disabled={!canUndo} onClick={() => act({ type: "undo" })}>
              <Undo fontSize="small" />
            </IconButton>
          </span>
        </Tooltip>
        <Button variant="outlined" disabled={!ready} onClick={() => setHearing(version)}>
          Hear it as one
        </Button>
        <Button color="inherit" disabled={!ready} aria-haspopup="menu" onClick={(e) => setFiles(e.currentTarget)}>
          Files
        </Button>
        <Menu open={!!files} anchorEl={files} onClose={() => setFiles(null)}>
          {MADE.map(([kind, name]) => (
            <MenuItem
              key={kind}
              onClick={() => {
                setFiles(null);
                void save({ of: "compilation", id: kept.id, kind });
              }}
            >
              {name}
            </MenuItem>
          ))}
          {FILES.map(([form, name]) => (
            <MenuItem key={form} component="a" href={`/api/compilations/${kept.id}/files/${form}`} download onClick={() => setFiles(null)}>
              {name}
            </MenuItem>
          ))}
        </Menu>
      </Box>
      {saving.state === "failed" && (
        <Alert
          severity="error"
          variant="outlined"
          action={
            <Button size="small" color="inherit" onClick={again}>
              Try again
            </Button>
          }
        >
          {saving.message}
        </Alert>
      )}
      {hearing !== null && (
        <Played key={hearing} id={kept.id} version={hearing} stale={hearing !== version} onAgain={() => setHearing(version)} />
      )}
      {draft.sections.some((each) => each.title) && (
        <Box>
          <FormControlLabel
            control={
              <Switch
                checked={draft.spoken}
                disabled={!kept.can_speak && !draft.spoken}
                onChange={(_, on) => act({ type: "speak", spoken: on })}
              />
            }
            label="Titles of sections are spoken"
          />
          {!kept.can_speak && (
            <Typography variant="body2" color="textSecondary">
              This machine has no voice of its own (Debian’s package “flite”); a pause stands in place of each title.
            </Typography>
          )}
        </Box>
      )}
      {draft.sections.map((section, i) => (
        <SectionPart
          key={i}
          section={section}
          number={i}
          count={draft.sections.length}
          dragged={dragged}
          onDrag={setDragged}
          onDrop={drop}
          act={act}
        />
      ))}
      <Button color="inherit" sx={{ justifySelf: "start" }} onClick={() => act({ type: "add section" })}>
        Add a section
      </Button>
    </Box>
  );
}
