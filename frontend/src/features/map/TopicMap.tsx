import Add from "@mui/icons-material/Add";
import Remove from "@mui/icons-material/Remove";
import { Box, Button, ButtonGroup, Link, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useRef, useState, type KeyboardEvent } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";

import { sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { fetchRecord } from "../../shared/fetchRecord";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { Drawing } from "./Drawing";
import { layout, step, tree, without } from "./layout";
import { pngOf, save, svgText } from "../../shared/saving";
import { useTitle } from "../../shared/useTitle";

const ZOOMS = [0.4, 0.5, 0.65, 0.8, 1, 1.25, 1.6, 2];

/** The meeting as a map: its subjects, and the lines that belong to each. */
export default function TopicMap() {
  const { meetingId = "" } = useParams();
  const record = useQuery({ queryKey: ["record", meetingId], queryFn: () => fetchRecord(meetingId), staleTime: 60_000 });
  useTitle(record.data ? `Topic map of ${record.data.meeting.title}` : "");
  if (record.isPending) return <Loading what="the map" />;
  if (record.error) return <Failure error={record.error} onRetry={() => void record.refetch()} />;
  if (!record.data.minutes?.lines.length)
    return (
      <Typography sx={{ p: 4 }}>
        There are no minutes to draw yet.{" "}
        <Link component={RouterLink} to={`/meetings/${meetingId}`}>
          Back to the record
        </Link>
      </Typography>
    );
  return <Open meeting={record.data.meeting} minutes={record.data.minutes} />;
}

function Open({ meeting, minutes }: { meeting: Schemas["MeetingOut"]; minutes: NonNullable<Schemas["RecordOut"]["minutes"]> }) {
  const root = useMemo(() => tree(meeting.title, minutes), [meeting.title, minutes]);
  const every = useMemo(() => new Set(["meeting", ...root.children.map((child) => child.id)]), [root]);
  const [open, setOpen] = useState<ReadonlySet<string>>(() => new Set(["meeting", ...root.children.slice(0, 1).map((child) => child.id)]));
  const [at, setAt] = useState("meeting");
  const [zoom, setZoom] = useState(1);
  const drawing = useRef<SVGSVGElement>(null);
  const notice = useNotice();
  const navigate = useNavigate();
  const made = useMemo(() => layout(root, open), [root, open]);
  const turn = (id: string) => {
    setAt(id);
    const node = made.nodes.find((each) => each.node.id === id)?.node;
    if (node?.line !== undefined) void navigate(`/meetings/${meeting.id}#line-${node.line}`);
    else setOpen(open.has(id) ? without(open, id) : new Set([...open, id]));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Enter" || event.key === " ") turn(at);
    else if (event.key === "+" || event.key === "-") zoomBy(event.key === "+" ? 1 : -1);
    else if (event.key.startsWith("Arrow")) {
      const next = step(made.nodes, open, at, event.key);
      setOpen(next.open);
      setAt(next.id);
      requestAnimationFrame(() => drawing.current?.querySelector<SVGGElement>(`[data-node="${next.id}"]`)?.focus());
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const zoomBy = (by: 1 | -1) => setZoom((old) => ZOOMS[Math.min(ZOOMS.length - 1, Math.max(0, ZOOMS.indexOf(old) + by))] ?? old);
  const savePicture = async () => {
    try {
      if (drawing.current) save(await pngOf(drawing.current), `${meeting.title} - map.png`);
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
    }
  };
  return (
    <Box sx={{ height: "100%", display: "flex", flexDirection: "column", overflow: "hidden" }}>
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          alignItems: "center",
          gap: 1,
          px: { xs: 1.5, sm: 3 },
          py: 1,
          borderBottom: 1,
          borderColor: "divider",
        }}
      >
        <Box sx={{ flex: "1 1 240px", minWidth: 0 }}>
          <Typography variant="h2" component="h1" noWrap>
            {meeting.title}
          </Typography>
          <Link component={RouterLink} to={`/meetings/${meeting.id}`} variant="body2">
            Back to the record
          </Link>
        </Box>
        <Button size="small" color="inherit" onClick={() => setOpen(open.size < every.size ? every : new Set(["meeting"]))}>
          {open.size < every.size ? "Open all" : "Close all"}
        </Button>
        <ButtonGroup size="small" color="inherit" aria-label="Size of the map">
          <Button onClick={() => zoomBy(-1)} aria-label="Smaller" disabled={zoom === ZOOMS[0]}>
            <Remove fontSize="small" />
          </Button>
          <Button onClick={() => setZoom(1)} aria-label={`${Math.round(zoom * 100)} %, back to the original size`}>
            {Math.round(zoom * 100)} %
          </Button>
          <Button onClick={() => zoomBy(1)} aria-label="Larger" disabled={zoom === ZOOMS.at(-1)}>
            <Add fontSize="small" />
          </Button>
        </ButtonGroup>
        <Button
          size="small"
          color="inherit"
          onClick={() =>
            drawing.current && save(new Blob([svgText(drawing.current)], { type: "image/svg+xml" }), `${meeting.title} - map.svg`)
          }
        >
          SVG
        </Button>
        <Button size="small" color="inherit" onClick={() => void savePicture()}>
          PNG
        </Button>
        <Button size="small" color="inherit" component="a" href={`/api/meetings/${meeting.id}/files/map.opml`} download>
          OPML
        </Button>
      </Box>
      <Box sx={{ flex: 1, overflow: "auto", p: 1 }} onKeyDown={onKeyDown}>
        <Drawing ref={drawing} made={made} open={open} at={at} zoom={zoom} onTurn={turn} />
      </Box>
    </Box>
  );
}
