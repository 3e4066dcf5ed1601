import { Box, Button, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { body, client } from "../../api/client";
import { HeardSound } from "../exports/HeardSound";
import { captionAt } from "./captionAt";

/** The whole played as one, with what is being said under it. */
export function Played({ id, version, stale, onAgain }: { id: number; version: number; stale: boolean; onAgain: () => void }) {
  const captions = useQuery({
    queryKey: ["captions", id, version],
    queryFn: () => body(client.GET("/api/compilations/{compilation_id}/captions", { params: { path: { compilation_id: id } } })),
  });
  const [now, setNow] = useState(0);
  const said = captionAt(captions.data?.captions ?? [], now);
  return (
    <Box component="section" aria-label="As one" sx={{ border: 1, borderColor: "divider", borderRadius: 1, p: 1.5 }}>
      <HeardSound order={{ of: "compilation", id, kind: "compilation.ogg" }} version={version} onTime={setNow} />
      <Typography sx={{ minHeight: 48, mt: 1, textAlign: "center", fontWeight: said && !said.speaker ? 700 : 400 }}>
        {said ? (said.speaker ? `${said.speaker}: ${said.text}` : said.text) : ""}
      </Typography>
      {stale && (
        <Button size="small" color="inherit" onClick={onAgain}>
          It was changed since: hear it as it is now
        </Button>
      )}
    </Box>
  );
}
