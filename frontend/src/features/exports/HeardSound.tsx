import { Alert, Box, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";

import { ApiProblem, sentenceOf } from "../../api/client";
import { fileAddress } from "./awaited";
import { useExportActions, useExports, type Order } from "./useExports";

interface Props {
  order: Order;
  version: string | number; // another one is made again
  onTime?: (seconds: number) => void;
}

/** Sound that is made when it is asked for: fetched whole, so that its length is known and every place of it is at hand. */
export function HeardSound({ order: wanted, version, onTime }: Props) {
  const { order } = useExportActions();
  const ordered = useQuery({
    queryKey: ["ordered", wanted, version],
    queryFn: () => order(wanted),
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  const made = useExports().find((each) => each.id === ordered.data?.id);
  const id = made?.state === "done" ? made.id : "";
  const sound = useQuery({
    queryKey: ["sound", id],
    queryFn: () => fetched(id),
    enabled: !!id,
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  const url = useMemo(() => (sound.data ? URL.createObjectURL(sound.data) : ""), [sound.data]);
  useEffect(
    () => () => {
      if (url) URL.revokeObjectURL(url);
    },
    [url],
  );
  const error = ordered.error ?? sound.error;
  const message = error ? sentenceOf(error) : made?.state === "failed" ? made.error : null;
  if (message)
    return (
      <Alert severity="error" variant="outlined">
        {message}
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

async function fetched(id: string): Promise<Blob> {
  const response = await fetch(fileAddress(id));
  if (response.ok) return response.blob();
  const problem = (await response.json().catch(() => ({}))) as { detail?: string };
  throw new ApiProblem(response.status, problem.detail ?? "The sound could not be put together. Try again.");
}
