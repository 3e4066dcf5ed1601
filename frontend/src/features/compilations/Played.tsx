import { Alert, Box, Button, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { body, client } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { captionAt } from "./captionAt";

/** The whole played as one, with what is being said under it. */
export function Played({ id, version, stale, onAgain }: { id: number; version: number; stale: boolean; onAgain: () => void }) {
  const captions = useQuery({ queryKey: ["captions", id, version], queryFn: () => body(client.GET("/api/compilations/{compilation_id}/captions", { params: { path: { compilation_id: id } } })) });
  const [now, setNow] = useState(0);
  const [waiting, setWaiting] = useState(true);
  const [failed, setFailed] = useState(false);
  const said = captionAt(captions.data?.captions ?? [], now);
  return (
    <Box component="section" aria-label="As one" sx={{ border: 1, borderColor: "divider", borderRadius: 1, p: 1.5 }}>
      <Box
        component="audio" src={`/api/compilations/${id}/files/ogg?v=${version}`} controls autoPlay onTimeUpdate={(e) => setNow(e.currentTarget.currentTime)} onCanPlay={() => setWaiting(false)} onError={() => setFailed(true)}
        sx={{ width: "100%", display: "block" }}
      />
      {captions.error ? <Failure error={captions.error} onRetry={() => void captions.refetch()} /> : failed ? <Alert severity="error" variant="outlined">The sound could not be put together. Try again.</Alert> : (
        <Typography aria-live="off" sx={{ minHeight: 48, mt: 1, textAlign: "center", fontWeight: said && !said.speaker ? 700 : 400 }}>
          {waiting ? "The sound is being put together …" : said ? (said.speaker ? `${said.speaker}: ${said.text}` : said.text) : ""}
        </Typography>
      )}
      {stale && <Button size="small" color="inherit" onClick={onAgain}>It was changed since: hear it as it is now</Button>}
    </Box>
  );
}
