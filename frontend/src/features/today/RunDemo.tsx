import { Box, Button, Paper, Typography } from "@mui/material";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import { bodyAs, client, sentenceOf } from "../../api/client";
import { useNotice } from "../../app/notices";
import { useSession } from "../entry/useSession";

/** In the demo: a meeting that plays itself through the simulated call, to see the Room alive without a microphone. */
export function RunDemo() {
  const { session } = useSession();
  const navigate = useNavigate();
  const notice = useNotice();
  const queries = useQueryClient();
  const run = useMutation({
    mutationFn: () => bodyAs("RoomOut", client.POST("/api/rooms/demo")),
    onSuccess: (room) => {
      void queries.invalidateQueries({ queryKey: ["meetings"] });
      void navigate(`/meetings/${room.board.meeting.id}/room`);
    },
    onError: (error) => notice({ text: sentenceOf(error), severity: "error" }),
  });
  if (!session.demo) return null;
  return (
    <Paper sx={{ p: 2, display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
      <Box sx={{ flex: 1, minWidth: 200 }}>
        <Typography sx={{ fontWeight: 700 }}>See a meeting being recorded</Typography>
        <Typography variant="body2" color="textSecondary">
          A committee of the ferry cooperative, played through a simulated call.
        </Typography>
      </Box>
      <Button variant="outlined" disabled={run.isPending} onClick={() => run.mutate()}>
        Run the demo meeting
      </Button>
    </Paper>
  );
}
