import { Alert, Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { bodyAs, client } from "../../api/client";

const kept = (meetingId: string) => `nuntius.template-kept.${meetingId}`;

/** Another template that title and talk point to; shown once, until it is used or put aside. */
export function TemplateHint({ meetingId, onChoose }: { meetingId: string; onChoose: (key: string) => Promise<void> }) {
  const [aside, setAside] = useState(() => localStorage.getItem(kept(meetingId)) !== null);
  const [busy, setBusy] = useState(false);
  const found = useQuery({
    queryKey: ["suggestion", meetingId],
    enabled: !aside,
    staleTime: Infinity,
    queryFn: () =>
      bodyAs("SuggestionOut", client.GET("/api/meetings/{meeting_id}/template", { params: { path: { meeting_id: meetingId } } })),
  }).data;
  if (aside || !found?.key) return null;
  const { key } = found;
  const put = () => {
    localStorage.setItem(kept(meetingId), key);
    setAside(true);
  };
  const use = async () => {
    setBusy(true);
    await onChoose(key);
    setBusy(false);
  };
  return (
    <Alert
      severity="info"
      variant="outlined"
      icon={false}
      sx={{ mx: { xs: 1, sm: 3 }, mt: 1, py: 0 }}
      action={
        <>
          <Button size="small" disabled={busy} onClick={() => void use()}>
            Use it
          </Button>
          <Button size="small" color="inherit" onClick={put}>
            Leave it
          </Button>
        </>
      }
    >
      The template “{found.name}” may fit better: {found.because}.
    </Alert>
  );
}
