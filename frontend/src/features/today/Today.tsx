import { Box, Button, Link, Paper, Tooltip, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useCallback, useRef, useState, type DragEvent } from "react";
import { Link as RouterLink, useNavigate } from "react-router";

import { body, client, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { MeetingFacts } from "../../shared/MeetingFacts";
import { SERIF } from "../../theme/theme";
import { useTitle } from "../../shared/useTitle";
import { BringIn } from "./BringIn";
import { NewMeeting } from "./NewMeeting";
import { OpenActions } from "./OpenActions";
import { Paste } from "./Paste";
import { Progress } from "./Progress";
import { RunDemo } from "./RunDemo";
import { useBringIn } from "./useBringIn";
import { useUploads } from "./uploads";

const TAKEN = ".wav,.flac,.mp3,.m4a,.aac,.ogg,.oga,.opus,.webm,.mp4,.mov,.vtt,.srt,.ttml,.docx,.txt,.md,.zip,audio/*,video/*";
const LOOK = 60_000; // milliseconds: the stream of events tells what moves; this is for what others begin

/** What is being worked on, what needs a person, and the place to bring in a recording. */
export function Today() {
  useTitle("Today");
  const meetings = useQuery({
    queryKey: ["meetings", "today"],
    queryFn: () => body(client.GET("/api/meetings/today")),
    refetchInterval: LOOK,
  });
  const notice = useNotice();
  const navigate = useNavigate();
  const resumed = useCallback(
    (meetingId: string) =>
      notice({
        text: "Going on where this file stopped.",
        severity: "info",
        action: { label: "Open", run: () => void navigate(`/meetings/${meetingId}`) },
      }),
    [notice, navigate],
  );
  const bring = useBringIn(resumed);
  const picker = useRef<HTMLInputElement>(null);
  const [starting, setStarting] = useState(false);
  const [pasting, setPasting] = useState(false);
  const choose = (files: FileList | null) => {
    if (files?.length) void bring.choose([...files]);
  };
  if (meetings.isPending) return <Loading what="Today" />;
  if (meetings.error) return <Failure error={meetings.error} onRetry={() => void meetings.refetch()} />;
  const { on, busy, not_done, check } = meetings.data;
  const none = on.total + busy.total + not_done.total + check.total === 0;
  return (
    <DropZone onDrop={choose}>
      <Box
        sx={{
          maxWidth: 1120,
          mx: "auto",
          p: { xs: 2, sm: 4 },
          display: "grid",
          gap: 4,
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 3fr) minmax(0, 2fr)" },
        }}
      >
        <Box sx={{ gridColumn: "1 / -1", display: "flex", alignItems: "center", gap: 2, flexWrap: "wrap" }}>
          <Typography variant="h1" sx={{ flex: 1 }}>
            Today
          </Typography>
          <Button variant="contained" color="error" onClick={() => setStarting(true)}>
            Record a meeting
          </Button>
          <Tooltip title="Or drop it anywhere on this page, together with its transcript or chat if you have them">
            <Button variant="outlined" onClick={() => picker.current?.click()}>
              Bring in a recording
            </Button>
          </Tooltip>
          <Button color="inherit" onClick={() => setPasting(true)}>
            Paste a transcript
          </Button>
          <input
            ref={picker}
            type="file"
            multiple
            hidden
            accept={TAKEN}
            aria-label="Recording"
            onChange={(e) => {
              choose(e.target.files);
              e.target.value = "";
            }}
          />
        </Box>
        <Box sx={{ display: "grid", gap: 4, alignContent: "start" }}>
          <RunDemo />
          {on.total > 0 && (
            <Section title={`On now (${on.total})`}>
              {on.meetings.map((m) => (
                <OnNow key={m.id} meeting={m} />
              ))}
              <Further list={on} />
            </Section>
          )}
          {busy.total > 0 && (
            <Section title={`Being worked on (${busy.total})`}>
              {busy.meetings.map((m) => (
                <Working key={m.id} meeting={m} onChooseAgain={() => picker.current?.click()} />
              ))}
              <Further list={busy} />
            </Section>
          )}
          {not_done.total > 0 && (
            <Section title={`Not done (${not_done.total})`}>
              {not_done.meetings.map((m) => (
                <Working key={m.id} meeting={m} onChooseAgain={() => picker.current?.click()} />
              ))}
              <Further list={not_done} />
            </Section>
          )}
          <Section title={`Minutes to check (${check.total})`}>
            {check.meetings.map((m) => (
              <ToCheck key={m.id} meeting={m} />
            ))}
            <Further list={check} />
            {!check.total && (
              <Empty>
                {none
                  ? "Nothing is waiting. Bring in a recording or a transcript, and its minutes appear here."
                  : "Every line has been checked."}
              </Empty>
            )}
          </Section>
        </Box>
        <OpenActions />
      </Box>
      {starting && <NewMeeting onClose={() => setStarting(false)} />}
      {bring.chosen[0] && (
        <BringIn
          key={bring.chosen[0].file.name + bring.chosen[0].file.lastModified}
          chosen={bring.chosen}
          onRole={(file, role) => bring.change(file, { role })}
          onLeaveOut={bring.leaveOut}
          onSubmit={bring.submit}
          onClose={bring.close}
        />
      )}
      {pasting && (
        <Paste
          onClose={() => setPasting(false)}
          onText={(file) => {
            setPasting(false);
            void bring.choose([file]);
          }}
        />
      )}
    </DropZone>
  );
}

function DropZone({ onDrop, children }: { onDrop: (files: FileList | null) => void; children: React.ReactNode }) {
  const [over, setOver] = useState(false);
  const stop = (event: DragEvent, inside: boolean) => {
    event.preventDefault();
    setOver(inside);
  };
  return (
    <Box
      onDragOver={(e) => stop(e, true)}
      onDragLeave={(e) => stop(e, false)}
      onDrop={(e) => {
        stop(e, false);
        onDrop(e.dataTransfer.files);
      }}
      sx={{
        minHeight: "100%",
        outline: over ? "3px dashed" : "none",
        outlineColor: "primary.main",
        outlineOffset: "-10px",
        bgcolor: over ? "wash" : undefined,
      }}
    >
      {children}
    </Box>
  );
}

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ minWidth: 0 }}>
      <Typography variant="h3" component="h2" sx={{ color: "text.secondary", borderBottom: 1, borderColor: "divider", pb: 0.5, mb: 1 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

function Empty({ children }: { children: React.ReactNode }) {
  return (
    <Typography color="textSecondary" sx={{ py: 1 }}>
      {children}
    </Typography>
  );
}

function Further({ list }: { list: Schemas["MeetingsOut"] }) {
  const more = list.total - list.meetings.length;
  return more > 0 ? <Empty>and {more} earlier ones, in the Archive</Empty> : null;
}

function Heading({ meeting }: { meeting: Schemas["MeetingOut"] }) {
  return (
    <Link
      component={RouterLink}
      to={`/meetings/${meeting.id}`}
      color="inherit"
      underline="hover"
      sx={{ fontFamily: SERIF, fontSize: "1.08rem", fontWeight: 600, overflowWrap: "anywhere" }}
    >
      {meeting.title}
    </Link>
  );
}

const ROOM_STATES = { ready: "not begun yet", recording: "being recorded", paused: "paused", stopping: "ending", stopped: "ended" };

function OnNow({ meeting }: { meeting: Schemas["MeetingOut"] }) {
  const state = meeting.room ?? "ready";
  return (
    <Paper sx={{ p: 2, mb: 1.5, display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
      <Box sx={{ flex: 1, minWidth: 180 }}>
        <Link
          component={RouterLink}
          to={`/meetings/${meeting.id}/room`}
          color="inherit"
          underline="hover"
          sx={{ fontFamily: SERIF, fontSize: "1.08rem", fontWeight: 600, overflowWrap: "anywhere" }}
        >
          {meeting.title}
        </Link>
        <Typography variant="body2" color={state === "recording" ? "error" : "textSecondary"}>
          {ROOM_STATES[state]}
        </Typography>
      </Box>
      <Button size="small" variant="outlined" component={RouterLink} to={`/meetings/${meeting.id}/room`}>
        Open the room
      </Button>
    </Paper>
  );
}

function Working({ meeting, onChooseAgain }: { meeting: Schemas["MeetingOut"]; onChooseAgain: () => void }) {
  const { sending } = useUploads();
  return (
    <Paper sx={{ p: 2, mb: 1.5, display: "grid", gap: 0.75 }}>
      <Heading meeting={meeting} />
      <Progress meeting={meeting} sending={sending[meeting.id]} onChooseAgain={onChooseAgain} />
    </Paper>
  );
}

function ToCheck({ meeting }: { meeting: Schemas["MeetingOut"] }) {
  return (
    <Box sx={{ py: 1.25, borderBottom: 1, borderColor: "divider", display: "grid", gridTemplateColumns: "1fr auto", columnGap: 2 }}>
      <Heading meeting={meeting} />
      <Typography sx={{ whiteSpace: "nowrap" }}>
        {meeting.unchecked} {meeting.unchecked < meeting.lines ? `of ${meeting.lines} ` : ""}lines
      </Typography>
      <MeetingFacts meeting={meeting} />
    </Box>
  );
}
