import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Link, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { body, client, type Schemas } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { clock, day, hour } from "../../shared/times";

/** What people changed on a record, the newest first. */
export function History({
  meetingId,
  zone,
  onShow,
  onTakeBack,
  onClose,
}: {
  meetingId: string;
  zone: string;
  onShow: (seconds: number) => void;
  onTakeBack: (change: number) => Promise<unknown>;
  onClose: () => void;
}) {
  const [busy, setBusy] = useState(false);
  const query = useQuery({
    queryKey: ["history", meetingId],
    queryFn: () => body(client.GET("/api/meetings/{meeting_id}/history", { params: { path: { meeting_id: meetingId } } })),
    staleTime: 0,
  });
  const takeBack = async (change: number) => {
    setBusy(true);
    await onTakeBack(change);
    await query.refetch();
    setBusy(false);
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="history-title">
      <DialogTitle id="history-title">Who changed what</DialogTitle>
      <DialogContent>
        {query.isPending && <Loading what="the history" />}
        {query.error && <Failure error={query.error} onRetry={() => void query.refetch()} />}
        {query.data?.changes.length === 0 && <Typography color="textSecondary">Nobody has changed anything on this record.</Typography>}
        {query.data?.changes.map((change) => (
          <HistoryRow key={change.id} change={change} zone={zone} busy={busy} onShow={onShow} onTakeBack={() => void takeBack(change.id)} />
        ))}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}

function HistoryRow({
  change,
  zone,
  busy,
  onShow,
  onTakeBack,
}: {
  change: Schemas["HistoryEntryOut"];
  zone: string;
  busy: boolean;
  onShow: (seconds: number) => void;
  onTakeBack: () => void;
}) {
  const { start } = change;
  return (
    <Box sx={{ py: 1, borderBottom: 1, borderColor: "divider", opacity: change.undone ? 0.75 : 1 }}>
      <Typography variant="body2" color="textSecondary">
        {change.who}, {day(change.at, zone)}, {hour(change.at, zone)}
        {start !== null && (
          <>
            {" · "}
            <Link component="button" type="button" onClick={() => onShow(start)} sx={{ verticalAlign: "baseline" }}>
              {clock(start)}
            </Link>
          </>
        )}
        {change.undone ? (
          " · taken back"
        ) : (
          <>
            {" · "}
            <Link
              component="button"
              type="button"
              disabled={busy}
              aria-label={`Take back: ${change.what}`}
              onClick={onTakeBack}
              sx={{ verticalAlign: "baseline" }}
            >
              Take back
            </Link>
          </>
        )}
      </Typography>
      <Typography>{change.what}</Typography>
      {change.before && (
        <Typography variant="body2" color="textSecondary" sx={{ textDecoration: "line-through", overflowWrap: "anywhere" }}>
          {change.before}
        </Typography>
      )}
      {change.after && (
        <Typography variant="body2" sx={{ overflowWrap: "anywhere" }}>
          {change.after}
        </Typography>
      )}
    </Box>
  );
}
