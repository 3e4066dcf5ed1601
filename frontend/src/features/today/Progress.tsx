import { Box, Button, LinearProgress, Typography } from "@mui/material";

import type { Schemas } from "../../api/client";
import { remaining } from "../../shared/times";
import { useWork } from "./useWork";
import type { Sending } from "./uploads";

const STEPS: Record<string, string> = {
  join: "Putting the file together",
  gather: "Putting the recording together",
  read: "Reading the transcript",
  sound: "Preparing the sound",
  listen: "Recognising words and voices",
  turns: "Writing the transcript",
  minutes: "Writing the minutes",
  unpack: "Unpacking the meeting",
  captions: "Joining the transcript to the sound",
  chat: "Reading the chat",
  voices: "Telling the voices apart",
};

/** What is said of work that waits, by how much comes before it. */
export function waiting(ahead: number | null): string {
  if (!ahead) return "Waiting; it is the next";
  return ahead === 1 ? "Waiting; one other comes before it" : `Waiting; ${ahead} others come before it`;
}

/** How far the work on a meeting is, what is being done and what can be done about it. */
export function Progress({
  meeting,
  sending,
  onChooseAgain,
}: {
  meeting: Schemas["MeetingOut"];
  sending: Sending | undefined;
  onChooseAgain: () => void;
}) {
  const { cancel, retry, putAway } = useWork(meeting.id);
  const job = meeting.job;
  if (sending) return <Arriving sending={sending} onChooseAgain={onChooseAgain} />;
  if (!job && !meeting.upload) return <Bar value={0} text="Its file did not arrive within seven days. Bring it in again." tone="failed" />;
  if (!job) {
    const held = meeting.upload?.held.length ?? 0;
    const all = meeting.upload ? Math.max(1, Math.ceil(meeting.upload.size / meeting.upload.part_size)) : 1;
    return (
      <Bar
        value={held / all}
        text={`${meeting.upload?.name ?? "The file"} has arrived in part (${Math.floor((held / all) * 100)} %). Choose the same file again to go on.`}
        tone="waits"
      >
        <Button size="small" onClick={onChooseAgain}>
          Choose the file
        </Button>
      </Bar>
    );
  }
  const away = meeting.runner && !job.put_away && (
    <Button size="small" color="inherit" onClick={putAway}>
      Put away
    </Button>
  );
  if (job.state === "failed") {
    return (
      <Bar value={job.progress} text={job.error ?? "This failed."} tone="failed">
        {meeting.runner && (
          <Button size="small" onClick={retry}>
            Try again
          </Button>
        )}
        {away}
      </Bar>
    );
  }
  if (job.state === "cancelled") {
    return (
      <Bar value={job.progress} text="Stopped. The recording is kept." tone="waits">
        {meeting.runner && (
          <Button size="small" onClick={retry}>
            Go on
          </Button>
        )}
        {away}
      </Bar>
    );
  }
  if (job.state === "done") return null;
  const number = job.steps.indexOf(job.step) + 1;
  const text =
    job.state === "waiting" ? waiting(job.ahead) : `${STEPS[job.step] ?? "Working"} (step ${Math.max(1, number)} of ${job.steps.length})`;
  return (
    <Bar value={job.progress} text={text} detail={job.remaining ? remaining(job.remaining) : ""}>
      {meeting.runner && (
        <Button size="small" color="inherit" onClick={cancel}>
          Stop
        </Button>
      )}
    </Bar>
  );
}

function Arriving({ sending, onChooseAgain }: { sending: Sending; onChooseAgain: () => void }) {
  const text = {
    sending: `Bringing in ${sending.name}: keep this page open until it has arrived`,
    waiting: "The connection is gone; it goes on by itself when it is back",
    failed: sending.error,
  }[sending.state];
  return (
    <Bar value={sending.share} text={text} tone={sending.state === "failed" ? "failed" : "goes"}>
      {sending.state === "failed" && (
        <Button size="small" onClick={onChooseAgain}>
          Choose the file again
        </Button>
      )}
    </Bar>
  );
}

function Bar({
  value,
  text,
  detail = "",
  tone = "goes",
  children,
}: {
  value: number;
  text: string;
  detail?: string;
  tone?: "goes" | "waits" | "failed";
  children?: React.ReactNode;
}) {
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: tone === "failed" ? "1fr" : "1fr auto", sm: "1fr auto" },
        columnGap: 2,
        alignItems: "center",
      }}
    >
      <Typography variant="body2" role="status" color={tone === "failed" ? "error" : "textSecondary"}>
        {text}
        {tone === "goes" && ` · ${Math.floor(value * 100)} %`}
        {detail && ` · ${detail}`}
      </Typography>
      <Box>{children}</Box>
      {tone !== "failed" && (
        <LinearProgress
          variant="determinate"
          value={value * 100}
          aria-label={text}
          sx={{ gridColumn: "1 / -1", height: 3, borderRadius: 1, bgcolor: "divider" }}
        />
      )}
    </Box>
  );
}
