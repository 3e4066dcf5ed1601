import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  List,
  ListItemButton,
  ListItemText,
  Typography,
  useMediaQuery,
  useTheme,
} from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { body, client, type Schemas } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { day, hour } from "../../shared/times";
import { SERIF } from "../../theme/theme";
import type { Line } from "./types";

interface Props {
  meetingId: string;
  zone: string;
  /** The lines as they stand now, with the titles of their sections. */
  lines: readonly Line[];
  onRestore: (version: number, line: number | null) => Promise<unknown>;
  onClose: () => void;
}

/** Minutes as they stood before they were written again, beside the present ones; a line, or all of them, can be taken back. */
export function Versions({ meetingId, zone, lines, onRestore, onClose }: Props) {
  const narrow = useMediaQuery(useTheme().breakpoints.down("sm"));
  const [chosen, setChosen] = useState<number | null>(null);
  const query = useQuery({
    queryKey: ["versions", meetingId],
    queryFn: () => body(client.GET("/api/meetings/{meeting_id}/versions", { params: { path: { meeting_id: meetingId } } })),
    staleTime: 0,
  });
  const versions = query.data?.versions ?? [];
  const at = versions.find((version) => version.id === chosen) ?? versions[0];
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" fullScreen={narrow} aria-labelledby="versions-title">
      <DialogTitle id="versions-title">Earlier minutes</DialogTitle>
      <DialogContent>
        {query.isPending && <Loading what="the earlier minutes" />}
        {query.error && <Failure error={query.error} onRetry={() => void query.refetch()} />}
        {query.data && !at && (
          <Typography color="textSecondary">
            There are none yet. When minutes are written again and read otherwise, how they stood before is kept here.
          </Typography>
        )}
        {at && (
          <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { sm: "190px minmax(0, 1fr)" } }}>
            <List dense disablePadding component="nav" aria-label="Earlier minutes">
              {versions.map((version) => (
                <ListItemButton key={version.id} selected={version.id === at.id} onClick={() => setChosen(version.id)}>
                  <ListItemText
                    primary={`${day(version.made_at, zone)}, ${hour(version.made_at, zone)}`}
                    secondary={`${version.lines} lines, ${version.length}`}
                  />
                </ListItemButton>
              ))}
            </List>
            <Version key={at.id} meetingId={meetingId} version={at.id} lines={lines} onRestore={onRestore} />
          </Box>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}

type Was = Schemas["VersionLine"];

function Version({ meetingId, version, lines, onRestore }: Pick<Props, "meetingId" | "lines" | "onRestore"> & { version: number }) {
  const [busy, setBusy] = useState(false);
  const query = useQuery({
    queryKey: ["versions", meetingId, version],
    queryFn: () =>
      body(
        client.GET("/api/meetings/{meeting_id}/versions/{version_id}", {
          params: { path: { meeting_id: meetingId, version_id: version } },
        }),
      ),
    staleTime: 0,
  });
  if (query.isPending) return <Loading what="these minutes" />;
  if (query.error) return <Failure error={query.error} onRetry={() => void query.refetch()} />;
  const now = new Map(lines.map((line) => [line.id, line]));
  const restore = async (line: number | null) => {
    setBusy(true);
    await onRestore(version, line);
    await query.refetch();
    setBusy(false);
  };
  const { lines: was, added } = query.data;
  const other = was.filter((line) => line.gone || line.differs);
  const sections = [...new Set(was.map((line) => line.section))];
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap", mb: 1 }}>
        <Typography role="status" color="textSecondary" sx={{ flex: 1 }}>
          {summary(other.length, added.length)}
        </Typography>
        <Button size="small" variant="outlined" disabled={busy || other.length + added.length === 0} onClick={() => void restore(null)}>
          Take all of them back
        </Button>
      </Box>
      {sections.map((section) => (
        <Box key={section} component="section" aria-label={`Then: ${section}`} sx={{ mb: 1.5 }}>
          <Typography variant="h3" component="h3" sx={{ color: "text.secondary" }}>
            {section}
          </Typography>
          {was
            .filter((line) => line.section === section)
            .map((line) => (
              <Then key={line.id} line={line} now={now.get(line.id)} busy={busy} onRestore={() => void restore(line.id)} />
            ))}
        </Box>
      ))}
    </Box>
  );
}

/** A line as it stood, with how it reads now where that is otherwise. */
function Then({ line, now, busy, onRestore }: { line: Was; now: Line | undefined; busy: boolean; onRestore: () => void }) {
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "baseline", py: 0.5, borderBottom: 1, borderColor: "divider" }}>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography sx={{ fontFamily: SERIF, overflowWrap: "anywhere", textDecoration: line.thrown_out ? "line-through" : undefined }}>
          {line.text}
        </Typography>
        <Typography variant="body2" color="textSecondary" sx={{ overflowWrap: "anywhere" }}>
          {[
            ...line.owner,
            line.due ? `by ${day(line.due)}` : "",
            line.kind === "action" ? line.progress : "",
            line.gone ? "not in the minutes now" : "",
            line.differs && now && now.text !== line.text ? `now: ${now.text}` : line.differs ? "otherwise now" : "",
          ]
            .filter(Boolean)
            .join(" · ")}
        </Typography>
      </Box>
      {(line.gone || line.differs) && (
        <Button size="small" disabled={busy} aria-label={`Take back: ${line.text}`} onClick={onRestore}>
          Take back
        </Button>
      )}
    </Box>
  );
}

function summary(other: number, added: number): string {
  if (!other && !added) return "The minutes read like this now.";
  const parts = [
    other && `${other} ${other === 1 ? "line reads" : "lines read"} otherwise now or ${other === 1 ? "is" : "are"} gone`,
    added && `${added} ${added === 1 ? "has" : "have"} come since`,
  ];
  return `${parts.filter(Boolean).join("; ")}.`;
}
