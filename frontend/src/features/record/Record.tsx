import Redo from "@mui/icons-material/Redo";
import Undo from "@mui/icons-material/Undo";
import { Box, Button, IconButton, ToggleButton, ToggleButtonGroup, Tooltip, Typography, useMediaQuery, useTheme } from "@mui/material";
import { useCallback, useMemo, useRef, useState } from "react";
import { useLocation, useParams } from "react-router";

import { Details } from "../../shared/Details";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { MeetingFacts } from "../../shared/MeetingFacts";
import { CutOut } from "../../shared/CutOut";
import { useTitle } from "../../shared/useTitle";
import { Progress } from "../today/Progress";
import { useUploads } from "../today/uploads";
import { Ask } from "./Ask";
import { Attendees } from "./Attendees";
import { minutesAwaited } from "./awaited";
import { Digest } from "./Digest";
import { History } from "./History";
import { HowRecorded } from "./HowRecorded";
import { GoneLine } from "./GoneLine";
import { LineForm } from "./LineForm";
import { Misheard } from "./Misheard";
import { MinutesPane } from "./MinutesPane";
import { MinutesScope } from "./MinutesScope";
import { More } from "./More";
import { Notes } from "./Notes";
import { Pictures } from "./Pictures";
import { Narrow } from "./Narrow";
import { isWide } from "./search";
import { PlayerBar } from "./PlayerBar";
import { RecordNotices } from "./RecordNotices";
import { Replace } from "./Replace";
import { SearchField } from "./SearchField";
import { silences } from "./silences";
import { Spine } from "./Spine";
import { Files } from "./Files";
import { TemplateHint } from "./TemplateHint";
import { Texts } from "./Texts";
import { TranscriptPane } from "./TranscriptPane";
import { Unfinished } from "./Unfinished";
import { Versions } from "./Versions";
import type { Line, Reason, RecordData } from "./types";
import { turnEnd } from "./types";
import { DiarizeAgain } from "./DiarizeAgain";
import { useAnchors } from "./useAnchors";
import { useHash } from "./useHash";
import { useLineForm } from "./useLineForm";
import { useLineUses } from "./useLineUses";
import { useMediaSession } from "./useMediaSession";
import { usePlayer } from "./usePlayer";
import { useRecord, type RecordActions } from "./useRecord";
import { useQuickMark } from "./useNotes";
import { useRecordKeys } from "./useRecordKeys";
import { useRecordView } from "./useRecordView";

const NONE: number[] = [];

/** The page of a meeting: minutes, spine, transcript, sound. */
export default function Record() {
  const { meetingId = "" } = useParams();
  const { query, ...actions } = useRecord(meetingId);
  const { sending } = useUploads();
  useTitle(query.data?.meeting.title ?? "");
  if (query.isPending) return <Loading what="the record" />;
  if (query.error) return <Failure error={query.error} onRetry={() => void query.refetch()} />;
  const record = query.data;
  if (record.turns.length === 0) return <Unfinished record={record} sending={sending[meetingId]} />;
  return <Open key={meetingId} record={record} actions={actions} />;
}

function Open({ record, actions }: { record: RecordData; actions: RecordActions }) {
  const narrow = useMediaQuery(useTheme().breakpoints.down("md"));
  const { hash } = useLocation();
  const duration = record.recording?.duration ?? Math.max(...record.turns.map(turnEnd));
  const quiet = useMemo(() => silences(record.turns, duration), [record.turns, duration]);
  const player = usePlayer(quiet);
  const view = useRecordView(record, player);
  const [side, setSide] = useState<"minutes" | "transcript">("minutes");
  const [asking, setAsking] = useState(false);
  const [cutting, setCutting] = useState(false);
  const [opened, setOpened] = useState<
    "texts" | "notes" | "misheard" | "replace" | "history" | "versions" | "voices" | "digest" | "attendees" | "details" | null
  >(null);
  const frame = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLInputElement>(null);
  const anchors = useAnchors(frame, view.selected, view.lit);
  const meeting = record.meeting;
  const kept = record.minutes?.lines.filter((line) => line.thrown_out === null) ?? [];
  const hasSound = record.recording?.has_sound ?? false;
  const { setEditing, show } = view;
  const { seek } = player;
  const goThere = useCallback(
    (seconds: number) => {
      seek(seconds);
      show(seconds);
    },
    [seek, show],
  );
  const form = useLineForm(record, actions, view.selected);
  const { uses, onProgress, copyAll } = useLineUses(meeting.id, view.sections, actions, form.change);
  const lineActions = useMemo(
    () => ({
      uses,
      onProgress,
      onAdd: form.add,
      onSplit: (line: Line, first: string, second: string) => actions.splitLine(line.id, first, second),
      onTick: (line: Line) => void actions.tickLine(line.id, !line.checked),
      onEdit: (line: Line | null) => setEditing(line?.id ?? null),
      onKeep: (line: Line, text: string, was: string) => actions.editLine(line.id, text, was),
      onThrow: (line: Line, reason: Reason | null) => void actions.throwOut(line.id, reason),
      onDetail: (detailed: number[]) => actions.remake({ detailed }),
    }),
    [actions, form.add, onProgress, setEditing, uses],
  );

  useHash(hash, record, view.select, player.play, view.show);
  useMediaSession(player, meeting.title, duration);
  const look = () => {
    setSide("minutes");
    view.stepDoubt();
  };
  const markNow = useQuickMark(meeting.id, actions.minutesFollow);
  useRecordKeys({
    record,
    player,
    view,
    actions,
    onTick: lineActions.onTick,
    onLook: look,
    onAsk: () => setAsking(true),
    onNote: () => setOpened("notes"),
    onMark: () => void markNow(player.position.get()),
    onSearch: () => {
      setSide("transcript");
      setTimeout(() => field.current?.focus());
    },
  });

  return (
    <Box sx={{ height: "100%", display: "flex", flexDirection: "column", minHeight: 0, overflow: "hidden" }}>
      <Box
        sx={{
          display: "flex",
          alignItems: "center",
          gap: 1.5,
          px: { xs: 1.5, sm: 3 },
          py: 1,
          borderBottom: 1,
          borderColor: "divider",
          flexWrap: "wrap",
          flex: "none",
        }}
      >
        <Box sx={{ flex: "1 1 260px", minWidth: 0 }}>
          <Typography variant="h2" component="h1" noWrap title={meeting.title}>
            {meeting.title}
          </Typography>
          <MeetingFacts meeting={meeting} />
          {record.consent && <HowRecorded record={record} />}
        </Box>
        {record.minutes && (
          <MinutesScope
            minutes={record.minutes}
            checked={kept.filter((line) => line.checked).length}
            lines={kept.length}
            onShape={actions.remake}
            onSeek={(seconds) => {
              setSide("transcript");
              goThere(seconds);
            }}
          />
        )}
        {view.doubts.size > 0 && (
          <Tooltip title="Go to the next line of which Nuntius is least sure (n)">
            <Button size="small" color="warning" onClick={look} sx={{ whiteSpace: "nowrap", fontWeight: 400 }}>
              {view.doubts.size} worth a look
            </Button>
          </Tooltip>
        )}
        <Box sx={{ display: "flex", alignItems: "center" }}>
          <Tooltip title="Take back (Ctrl Z)">
            <span>
              <IconButton
                size="small"
                aria-label="Take the last change back"
                disabled={!record.can_undo}
                onClick={() => void actions.undo()}
              >
                <Undo fontSize="small" />
              </IconButton>
            </span>
          </Tooltip>
          <Tooltip title="Do again (Ctrl Y)">
            <span>
              <IconButton size="small" aria-label="Do it again" disabled={!record.can_redo} onClick={() => void actions.redo()}>
                <Redo fontSize="small" />
              </IconButton>
            </span>
          </Tooltip>
          <Pictures record={record} onSeek={goThere} />
          <Button size="small" color="inherit" onClick={() => setAsking(true)}>
            Ask
          </Button>
          <Files
            meetingId={meeting.id}
            hasMinutes={!!record.minutes}
            hasSound={hasSound}
            hasOriginal={record.recording?.has_original ?? false}
            doubted={view.doubts.size}
            onLook={look}
          />
          <More
            meetingId={meeting.id}
            hasMinutes={!!record.minutes}
            onTexts={() => setOpened("texts")}
            onDigest={hasSound ? () => setOpened("digest") : undefined}
            onNotes={() => setOpened("notes")}
            onMisheard={() => setOpened("misheard")}
            onReplace={() => setOpened("replace")}
            onHistory={() => setOpened("history")}
            onVersions={() => setOpened("versions")}
            onCopy={() => copyAll(meeting.title)}
            onVoices={hasSound && meeting.runner ? () => setOpened("voices") : undefined}
            onRemake={() => void actions.remake()}
            onCut={hasSound && meeting.runner ? () => setCutting(true) : undefined}
            onAttendees={() => setOpened("attendees")}
            onDetails={meeting.runner ? () => setOpened("details") : undefined}
          />
        </Box>
        {narrow && (
          <ToggleButtonGroup
            size="small"
            exclusive
            fullWidth
            value={side}
            onChange={(_, next: "minutes" | "transcript" | null) => next && setSide(next)}
            aria-label="What to show"
          >
            <ToggleButton value="minutes" sx={{ py: 0.4 }}>
              Minutes
            </ToggleButton>
            <ToggleButton value="transcript" sx={{ py: 0.4 }}>
              Transcript
            </ToggleButton>
          </ToggleButtonGroup>
        )}
      </Box>
      <RecordNotices record={record} />
      <GoneLine hash={hash} record={record} onLine={view.select} onVersions={() => setOpened("versions")} />
      {record.minutes && <TemplateHint meetingId={meeting.id} onChoose={(template) => actions.remake({ template })} />}
      {meeting.job && meeting.job.state !== "done" && (
        <Box sx={{ px: 3, py: 1 }}>
          <Progress meeting={meeting} sending={undefined} onChooseAgain={() => location.assign("/")} />
        </Box>
      )}
      <Box ref={frame} sx={{ flex: 1, minHeight: 0, display: "flex" }}>
        {(!narrow || side === "minutes") && (
          <Box sx={{ flex: "1 1 0", minWidth: 0 }}>
            <MinutesPane
              awaited={minutesAwaited(record)}
              sections={view.sections}
              selected={view.selected}
              litLines={view.litLines}
              editing={view.editing}
              doubts={view.doubts}
              onMoved={anchors.measure}
              onSelect={view.select}
              onPlay={view.playLine}
              detailed={record.minutes?.detailed ?? NONE}
              {...lineActions}
            />
          </Box>
        )}
        <Spine
          record={record}
          duration={duration}
          position={player.position}
          lit={view.lit}
          matches={view.shownMatches}
          narrow={narrow}
          lineY={anchors.line}
          turnY={anchors.turn}
          onSeek={goThere}
        />
        {(!narrow || side === "transcript") && (
          <Box sx={{ flex: "1.05 1 0", minWidth: 0, display: "flex", flexDirection: "column" }}>
            <Box sx={{ px: { xs: 1, sm: 2 }, py: 0.75, borderBottom: 1, borderColor: "divider" }}>
              <SearchField
                field={field}
                wanted={view.wanted}
                count={view.matches.length}
                at={view.at}
                onWanted={(text) => view.search(text, view.narrowing)}
                onStep={view.stepMatch}
                narrowed={!isWide(view.narrowing)}
              >
                <Narrow record={record} narrowing={view.narrowing} onNarrow={(within) => view.search(view.wanted, within)} />
              </SearchField>
            </Box>
            <Box sx={{ flex: 1, minHeight: 0 }}>
              <TranscriptPane
                record={record}
                player={player}
                actions={actions}
                lit={view.lit}
                matches={view.shownMatches}
                match={view.match}
                following={view.following}
                setFollowing={view.setFollowing}
                goTo={view.goTo}
                onChoose={view.chooseTurn}
                onMoved={anchors.measure}
                line={view.line}
                onAddLine={form.add}
              />
            </Box>
          </Box>
        )}
      </Box>
      {hasSound &&
        (record.recording?.has_picture ? (
          <Box
            component="video"
            ref={player.attach}
            src={`/api/meetings/${meeting.id}/sound`}
            preload="metadata"
            playsInline
            sx={{ position: "fixed", right: 16, bottom: 72, width: { xs: 160, sm: 300 }, borderRadius: 1, bgcolor: "#000" }}
          />
        ) : (
          <audio ref={player.attach} src={`/api/meetings/${meeting.id}/sound`} preload="metadata" />
        ))}
      <PlayerBar
        meetingId={meeting.id}
        player={player}
        duration={duration}
        hasSound={hasSound}
        isText={record.recording?.is_text ?? true}
      />
      <CutOut
        open={cutting}
        seconds={duration}
        from={Math.floor(player.position.get())}
        words={(start, end) => wordsBetween(record, start, end)}
        onClose={() => setCutting(false)}
        onCut={actions.cut}
      />
      {opened === "texts" && (
        <Texts
          meetingId={meeting.id}
          lines={kept}
          doubted={view.doubts.size}
          onLook={() => {
            setOpened(null);
            look();
          }}
          onPlay={view.playLine}
          onClose={() => setOpened(null)}
        />
      )}
      {opened === "notes" && (
        <Notes
          meetingId={meeting.id}
          marks={record.marks}
          duration={duration}
          at={player.position.get()}
          onChanged={actions.minutesFollow}
          onShow={(seconds) => {
            setSide("transcript");
            goThere(seconds);
          }}
          onClose={() => setOpened(null)}
        />
      )}
      {opened === "misheard" && (
        <Misheard
          meetingId={meeting.id}
          onPutRight={actions.putRight}
          onClose={() => setOpened(null)}
          onPlay={(start, end) => {
            view.show(start);
            player.play(Math.max(0, start - 1), end + 1);
          }}
        />
      )}
      {opened === "replace" && <Replace meetingId={meeting.id} onClose={() => setOpened(null)} onReplaced={actions.reload} />}
      {opened === "history" && (
        <History
          meetingId={meeting.id}
          zone={meeting.time_zone}
          onClose={() => setOpened(null)}
          onTakeBack={actions.takeBack}
          onShow={(seconds) => {
            setOpened(null);
            setSide("transcript");
            goThere(seconds);
          }}
        />
      )}
      {opened === "versions" && (
        <Versions
          meetingId={meeting.id}
          zone={meeting.time_zone}
          lines={record.minutes?.lines ?? []}
          onRestore={actions.restoreVersion}
          onClose={() => setOpened(null)}
        />
      )}
      {form.open && (
        <LineForm
          title={"line" in form.open ? "Change this line" : "Add a line"}
          start={form.open.start}
          sections={form.titles}
          people={[...new Set([...meeting.people, ...record.voices.filter((voice) => voice.named).map((voice) => voice.name)])]}
          placeOf={form.placeOf}
          onKeep={form.keep}
          onClose={form.close}
        />
      )}
      {opened === "attendees" && <Attendees meetingId={meeting.id} onClose={() => setOpened(null)} />}
      {opened === "details" && <Details meeting={meeting} onClose={() => setOpened(null)} />}
      {opened === "digest" && <Digest meetingId={meeting.id} onClose={() => setOpened(null)} />}
      {opened === "voices" && (
        <DiarizeAgain voices={record.voices.length} onDiarize={actions.diarizeAgain} onClose={() => setOpened(null)} />
      )}
      <Ask
        meetingId={meeting.id}
        voices={record.voices.map((voice) => voice.name)}
        chapters={record.minutes?.chapters ?? []}
        open={asking}
        onClose={() => setAsking(false)}
        onPlay={(start, end) => {
          view.show(start);
          player.play(start, end);
        }}
      />
    </Box>
  );
}

function wordsBetween(record: RecordData, start: number, end: number): string {
  return record.turns
    .flatMap((turn) => turn.words)
    .filter((word) => word[1] < end && start < word[2])
    .map((word) => word[0])
    .join(" ");
}
