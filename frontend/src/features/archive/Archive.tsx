import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Link,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from "@mui/material";
import { keepPreviousData, useInfiniteQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link as RouterLink } from "react-router";

import { body, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { day, hour, lasting } from "../../shared/times";
import { SERIF } from "../../theme/theme";
import { useTitle } from "../../shared/useTitle";

type Meeting = Schemas["MeetingOut"];

/** All meetings, the newest first. */
export default function Archive() {
  useTitle("Archive");
  const queries = useQueryClient();
  const notice = useNotice();
  const [wanted, setWanted] = useState("");
  const [doomed, setDoomed] = useState<Meeting | null>(null);
  const words = useDeferredValue(wanted);
  const pages = useInfiniteQuery({
    queryKey: ["meetings", "archive", words],
    queryFn: ({ pageParam }) =>
      body(client.GET("/api/meetings", { params: { query: { words, ...(pageParam === null ? {} : { after: pageParam }) } } })),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.after,
    placeholderData: keepPreviousData,
  });
  if (pages.isPending) return <Loading what="the archive" />;
  if (pages.error) return <Failure error={pages.error} onRetry={() => void pages.refetch()} />;
  const shown = pages.data.pages.flatMap((page) => page.meetings);
  const total = pages.data.pages[0]?.total ?? 0;
  const remove = async (meeting: Meeting) => {
    setDoomed(null);
    try {
      await body(client.DELETE("/api/meetings/{meeting_id}", { params: { path: { meeting_id: meeting.id } } }));
      await queries.invalidateQueries({ queryKey: ["meetings"] });
      await queries.invalidateQueries({ queryKey: ["actions"] });
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
    }
  };
  return (
    <Box sx={{ maxWidth: 1120, mx: "auto", p: { xs: 2, sm: 4 } }}>
      <Box sx={{ display: "flex", gap: 2, alignItems: "center", mb: 2, flexWrap: "wrap" }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Archive
        </Typography>
        <TextField size="small" label="Title, kind or person" type="search" value={wanted} onChange={(e) => setWanted(e.target.value)} />
      </Box>
      {shown.length === 0 && (
        <Typography color="textSecondary">
          {wanted ? "No meeting fits these words." : "No meetings yet. Bring in a recording on Today."}
        </Typography>
      )}
      {shown.length > 0 && (
        <Box sx={{ overflowX: "auto" }}>
          <Table size="small" aria-label="Meetings">
            <TableHead>
              <TableRow>
                <TableCell>Meeting</TableCell>
                <TableCell>Day</TableCell>
                <TableCell>Length</TableCell>
                <TableCell>Kind</TableCell>
                <TableCell>People</TableCell>
                <TableCell>Checked</TableCell>
                <TableCell />
              </TableRow>
            </TableHead>
            <TableBody>
              {shown.map((m) => (
                <TableRow key={m.id} hover>
                  <TableCell sx={{ minWidth: 220 }}>
                    <Link
                      component={RouterLink}
                      to={`/meetings/${m.id}`}
                      color="inherit"
                      sx={{ fontFamily: SERIF, fontSize: "1rem", overflowWrap: "anywhere" }}
                    >
                      {m.title}
                    </Link>
                  </TableCell>
                  <TableCell sx={{ whiteSpace: "nowrap" }}>
                    {day(m.starts_at, m.time_zone)}, {hour(m.starts_at, m.time_zone)}
                  </TableCell>
                  <TableCell sx={{ whiteSpace: "nowrap" }}>{m.duration ? lasting(m.duration) : "–"}</TableCell>
                  <TableCell sx={{ whiteSpace: "nowrap" }}>{m.kind}</TableCell>
                  <TableCell>{m.people.map((p) => p.split(" ")[0]).join(", ")}</TableCell>
                  <TableCell sx={{ whiteSpace: "nowrap" }}>{m.lines ? `${m.lines - m.unchecked} of ${m.lines}` : "–"}</TableCell>
                  <TableCell>
                    {m.runner && (
                      <Button size="small" color="inherit" onClick={() => setDoomed(m)} aria-label={`Delete ${m.title}`}>
                        Delete
                      </Button>
                    )}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
          {pages.hasNextPage && (
            <Button sx={{ mt: 1 }} disabled={pages.isFetchingNextPage} onClick={() => void pages.fetchNextPage()}>
              Show earlier ones ({total - shown.length} more)
            </Button>
          )}
        </Box>
      )}
      <Dialog open={!!doomed} onClose={() => setDoomed(null)} aria-labelledby="delete-title">
        <DialogTitle id="delete-title">Delete “{doomed?.title}”?</DialogTitle>
        <DialogContent>Its recording, transcript and minutes are removed for good. This cannot be taken back.</DialogContent>
        <DialogActions>
          <Button onClick={() => setDoomed(null)}>Keep it</Button>
          <Button color="error" onClick={() => doomed && void remove(doomed)}>
            Delete for good
          </Button>
        </DialogActions>
      </Dialog>
    </Box>
  );
}
