import { Box, Button, Link, Table, TableBody, TableCell, TableHead, TableRow, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";

import { bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { pngOf, save, svgText } from "../../shared/saving";
import { useTitle } from "../../shared/useTitle";
import { fragmentFor } from "../record/fragment";
import { durationText } from "./bars";
import { Chart } from "./Chart";

const MEANINGS: [string, string][] = [
  [
    "Share",
    "the time a voice speaks, of all the time anybody speaks. Where two speak at once it counts for both, so the shares add up to 100.",
  ],
  ["Turns", "how often a voice took the floor. A pause of up to two seconds in which nobody else begins does not end a turn."],
  ["Longest", "the longest turn without a break."],
  [
    "Began over others",
    "how often, and for how long, a voice spoke while another, that had begun before, was still speaking. Short signs of listening count as well.",
  ],
  ["Words a minute", "words by the voice’s own speaking time."],
  [
    "Evenness",
    "100 when all had the same time, 0 when one voice had it all: the entropy of the shares by its greatest value (Pielou 1966).",
  ],
  ["Silence", "the time in which nobody speaks; single silences are counted from two seconds on."],
];

/** How the meeting went: who had the floor, how often, over whom, how evenly. */
export default function Floor() {
  const { meetingId = "" } = useParams();
  const query = useQuery({
    queryKey: ["floor", meetingId],
    queryFn: () => bodyAs("FloorOut", client.GET("/api/meetings/{meeting_id}/floor", { params: { path: { meeting_id: meetingId } } })),
    staleTime: 0,
  });
  useTitle(query.data ? `Floor of ${query.data.title}` : "");
  if (query.isPending) return <Loading what="the floor" />;
  if (query.error) return <Failure error={query.error} onRetry={() => void query.refetch()} />;
  if (!query.data.voices.length)
    return (
      <Typography sx={{ p: 4 }}>
        Nobody has spoken yet.{" "}
        <Link component={RouterLink} to={`/meetings/${meetingId}`}>
          Back to the record
        </Link>
      </Typography>
    );
  return <Open meetingId={meetingId} floor={query.data} />;
}

function Open({ meetingId, floor }: { meetingId: string; floor: Schemas["FloorOut"] }) {
  const drawing = useRef<SVGSVGElement>(null);
  const notice = useNotice();
  const navigate = useNavigate();
  const picture = async () => {
    try {
      if (drawing.current) save(await pngOf(drawing.current), `${floor.title} - floor.png`);
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
    }
  };
  return (
    <Box sx={{ maxWidth: 920, mx: "auto", p: { xs: 1.5, sm: 3 }, display: "grid", gap: 2.5, "& > *": { minWidth: 0 } }}>
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1 }}>
        <Box sx={{ flex: "1 1 240px", minWidth: 0 }}>
          <Typography variant="h2" component="h1" noWrap>
            {floor.title}
          </Typography>
          <Link component={RouterLink} to={`/meetings/${meetingId}`} variant="body2">
            Back to the record
          </Link>
        </Box>
        <Button
          size="small"
          color="inherit"
          onClick={() =>
            drawing.current && save(new Blob([svgText(drawing.current)], { type: "image/svg+xml" }), `${floor.title} - floor.svg`)
          }
        >
          SVG
        </Button>
        <Button size="small" color="inherit" onClick={() => void picture()}>
          PNG
        </Button>
        <Button size="small" color="inherit" component="a" href={`/api/meetings/${meetingId}/files/floor.csv`} download>
          CSV
        </Button>
      </Box>
      <Typography>
        {durationText(floor.duration)} long; nobody spoke for {durationText(floor.silence)}
        {floor.silences.length > 0 &&
          `, in ${floor.silences.length === 1 ? "one silence" : `${floor.silences.length} silences`} of two seconds or more`}
        ; more than one spoke for {durationText(floor.overlap)}. Evenness {Math.round(floor.evenness * 100)}.
      </Typography>
      <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Figures of each voice">
        <Table
          size="small"
          sx={{
            "& td, & th": { whiteSpace: "nowrap" },
            "& td:not(:first-of-type), & th:not(:first-of-type)": { textAlign: "right", fontVariantNumeric: "tabular-nums" },
          }}
        >
          <TableHead>
            <TableRow>
              {["Voice", "Share", "Time", "Turns", "Longest", "Began over others", "Words a minute", "Questions"].map((head) => (
                <TableCell key={head}>{head}</TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {floor.voices.map((voice) => (
              <TableRow key={voice.voice}>
                <TableCell component="th" scope="row">
                  {voice.voice}
                </TableCell>
                <TableCell>{(voice.share * 100).toFixed(1)} %</TableCell>
                <TableCell>{durationText(voice.seconds)}</TableCell>
                <TableCell>{voice.turns}</TableCell>
                <TableCell>{durationText(voice.longest)}</TableCell>
                <TableCell>{voice.overlaps ? `${voice.overlaps} (${durationText(voice.overlapped)})` : "0"}</TableCell>
                <TableCell>{Math.round(voice.pace)}</TableCell>
                <TableCell>{voice.questions}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
      <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="The floor as a drawing">
        <Chart ref={drawing} floor={floor} onSeek={(seconds) => void navigate(`/meetings/${meetingId}${fragmentFor(seconds)}`)} />
      </Box>
      <Box component="section" aria-labelledby="meanings">
        <Typography id="meanings" variant="h3" component="h2" gutterBottom>
          What the figures mean
        </Typography>
        <Box component="dl" sx={{ m: 0, display: "grid", gridTemplateColumns: { xs: "1fr", sm: "150px 1fr" }, columnGap: 2, rowGap: 0.75 }}>
          {MEANINGS.map(([word, meaning]) => [
            <Typography key={word} component="dt" variant="body2" sx={{ fontWeight: 700 }}>
              {word}
            </Typography>,
            <Typography key={`${word} means`} component="dd" variant="body2" sx={{ m: 0 }}>
              {meaning}
            </Typography>,
          ])}
        </Box>
      </Box>
    </Box>
  );
}
