import { Alert, Box, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";

import { ApiProblem, sentenceOf } from "../api/client";

/** Sound that is made when it is asked for: fetched whole, so that its length is known and every place of it is at hand. */
export function HeardSound({ address, onTime }: { address: string; onTime?: (seconds: number) => void }) {
  const sound = useQuery({ queryKey: ["sound", address], queryFn: () => fetched(address), staleTime: Infinity, gcTime: 0, retry: false });
  const url = useMemo(() => (sound.data ? URL.createObjectURL(sound.data) : ""), [sound.data]);
  useEffect(
    () => () => {
      if (url) URL.revokeObjectURL(url);
    },
    [url],
  );
  if (sound.error)
    return (
      <Alert severity="error" variant="outlined">
        {sentenceOf(sound.error)}
      </Alert>
    );
  if (!url)
    return (
      <Typography role="status" color="textSecondary" sx={{ minHeight: 54, display: "grid", placeItems: "center" }}>
        The sound is being put together …
      </Typography>
    );
  return (
    <Box
      component="audio"
      src={url}
      controls
      autoPlay
      onTimeUpdate={(e) => onTime?.(e.currentTarget.currentTime)}
      sx={{ width: "100%", display: "block" }}
    />
  );
}

async function fetched(address: string): Promise<Blob> {
  const response = await fetch(address);
  if (response.ok) return response.blob();
  const problem = (await response.json().catch(() => ({}))) as { detail?: string };
  throw new ApiProblem(response.status, problem.detail ?? "The sound could not be put together. Try again.");
}
