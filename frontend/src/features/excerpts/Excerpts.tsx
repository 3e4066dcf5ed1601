import ArrowDownward from "@mui/icons-material/ArrowDownward";
import ArrowUpward from "@mui/icons-material/ArrowUpward";
import { Alert, Box, Button, Checkbox, Link, MenuItem, TextField, Typography } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useNavigate } from "react-router";

import { body, bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { clock } from "../../shared/times";
import { Tool } from "../record/Tool";
import { fragmentFor } from "../record/fragment";
import { SERIF } from "../../theme/theme";
import { useTitle } from "../../shared/useTitle";
import { HeardSound } from "../exports/HeardSound";
import { useExportActions } from "../exports/useExports";
import { Compilations } from "./Compilations";
import { ExcerptForm } from "./ExcerptForm";
import { moved, type Excerpt } from "./choosing";
import { EVERYTHING, isWide, useExcerpts, type Narrowed } from "./useExcerpts";

/** All passages that were kept, over all meetings; chosen ones are heard or downloaded as one. */
export default function Excerpts() {
  useTitle("Excerpts");
  const [narrowed, setNarrowed] = useState<Narrowed>(EVERYTHING);
  const list = useExcerpts(narrowed);
  if (list.isPending) return <Loading what="the excerpts" />;
  if (list.error) return <Failure error={list.error} onRetry={() => void list.refetch()} />;
  return <Open list={list} narrowed={narrowed} setNarrowed={setNarrowed} />;
}

interface Shown {
  list: ReturnType<typeof useExcerpts>;
  narrowed: Narrowed;
  setNarrowed: (narrowed: Narrowed) => void;
}

function Open({ list, narrowed, setNarrowed }: Shown) {
  const { excerpts: shown, total, meetings, people, labels } = list;
  const queries = useQueryClient();
  const notice = useNotice();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<Excerpt[]>([]);
  const order = chosen.map((each) => each.id);
  const [heard, setHeard] = useState<number[] | null>(null);
  const { save } = useExportActions();
  const [changing, setChanging] = useState<Excerpt | null>(null);
  const carry = async (change: Promise<unknown>) => {
    try {
      await change;
      await queries.invalidateQueries({ queryKey: ["excerpts"] });
      return true;
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
      return false;
    }
  };
  const compile = async () => {
    const passages = chosen.map(({ meeting_id, title, start, end }) => ({ meeting_id, title, start, end }));
    try {
      const made = await bodyAs(
        "CompilationOut",
        client.POST("/api/compilations", {
          body: { title: chosen[0]?.title ?? "Compilation", spoken: false, sections: [{ title: "", passages }] },
        }),
      );
      void queries.invalidateQueries({ queryKey: ["compilations"] });
      void navigate(`/compilations/${made.id}`);
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
    }
  };
  const remove = async (excerpt: Excerpt) => {
    if (!(await carry(body(client.DELETE("/api/excerpts/{excerpt_id}", { params: { path: { excerpt_id: excerpt.id } } }))))) return;
    setChosen((old) => old.filter((each) => each.id !== excerpt.id));
    notice({
      text: `“${excerpt.title}” is removed.`,
      severity: "info",
      action: {
        label: "Take back",
        run: () =>
          void client
            .POST("/api/meetings/{meeting_id}/excerpts", { params: { path: { meeting_id: excerpt.meeting_id } }, body: bodyOf(excerpt) })
            .then(() => queries.invalidateQueries({ queryKey: ["excerpts"] })),
      },
    });
  };
  const choice = (label: string, key: "meeting" | "person" | "label", all: string, values: [string, string][]) => (
    <TextField
      select
      size="small"
      label={label}
      value={narrowed[key]}
      onChange={(e) => setNarrowed({ ...narrowed, [key]: e.target.value })}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      sx={{ flex: "1 1 140px", maxWidth: 260 }}
    >
      <MenuItem value="">{all}</MenuItem>
      {values.map(([value, name]) => (
        <MenuItem key={value} value={value}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
  if (!total && isWide(narrowed)) {
    return (
      <Box sx={{ maxWidth: 720, mx: "auto", p: { xs: 2, sm: 4 } }}>
        <Typography variant="h1" gutterBottom>
          Excerpts
        </Typography>
        <Typography color="textSecondary">
          Nothing is kept yet. Open a record, draw over some words of the transcript, and choose “Keep”.
        </Typography>
        <Compilations />
      </Box>
    );
  }
  return (
    <Box sx={{ maxWidth: 920, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 2, "& > *": { minWidth: 0 } }}>
      <Typography variant="h1">Excerpts</Typography>
      <Compilations />
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
        <TextField
          size="small"
          type="search"
          label="Words"
          value={narrowed.words}
          onChange={(e) => setNarrowed({ ...narrowed, words: e.target.value })}
          sx={{ flex: "1 1 160px", maxWidth: 300 }}
        />
        {choice(
          "Meeting",
          "meeting",
          "All meetings",
          meetings.map((each) => [each.id, each.title]),
        )}
        {people.length > 0 &&
          choice(
            "Person",
            "person",
            "Everybody",
            people.map((each) => [String(each.id), each.name]),
          )}
        {labels.length > 0 &&
          choice(
            "Label",
            "label",
            "Every label",
            labels.map((label) => [label, label]),
          )}
      </Box>
      {chosen.length > 0 && (
        <Box component="section" aria-label="As one" sx={{ border: 1, borderColor: "divider", borderRadius: 1, p: 1.5 }}>
          <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1, mb: 0.5 }}>
            <Typography variant="h3" component="h2" sx={{ mr: "auto" }}>
              {chosen.length === 1 ? "One chosen" : `${chosen.length} chosen, as one`}
            </Typography>
            <Button size="small" color="inherit" onClick={() => setHeard(order)}>
              Hear them
            </Button>
            <Button size="small" color="inherit" onClick={() => void save({ of: "excerpts", ids: order })}>
              Sound (Ogg)
            </Button>
            <Button size="small" color="inherit" component="a" href={`/api/excerpts/chapters?ids=${order.join(",")}`} download>
              Chapters (WebVTT)
            </Button>
            <Button size="small" color="inherit" onClick={() => void compile()}>
              Make a compilation
            </Button>
            <Button size="small" color="inherit" onClick={() => setChosen([])}>
              Choose none
            </Button>
          </Box>
          {chosen.map((each, i) => (
            <Box key={each.id} sx={{ display: "flex", alignItems: "center", gap: 1 }}>
              <Typography sx={{ flex: 1, minWidth: 0 }} noWrap>
                {i + 1}. {each.title}
              </Typography>
              <Tool label={`Earlier: ${each.title}`} title="Earlier" onClick={() => setChosen(moved(chosen, each.id, -1))}>
                <ArrowUpward sx={{ fontSize: 16 }} />
              </Tool>
              <Tool label={`Later: ${each.title}`} title="Later" onClick={() => setChosen(moved(chosen, each.id, 1))}>
                <ArrowDownward sx={{ fontSize: 16 }} />
              </Tool>
            </Box>
          ))}
        </Box>
      )}
      {heard && <HeardSound key={heard.join()} order={{ of: "excerpts", ids: heard }} version={heard.join()} />}
      {!shown.length && (
        <Alert severity="info" variant="outlined">
          No excerpt fits this choice.
        </Alert>
      )}
      {shown.map((each) => (
        <Box
          key={each.id}
          component="article"
          aria-label={each.title}
          sx={{ display: "grid", gridTemplateColumns: "auto 1fr", columnGap: 1, borderTop: 1, borderColor: "divider", pt: 1 }}
        >
          <Checkbox
            size="small"
            sx={{ p: 0.25, alignSelf: "start" }}
            checked={order.includes(each.id)}
            onChange={(_, on) => setChosen(on ? [...chosen, each] : chosen.filter((old) => old.id !== each.id))}
            slotProps={{ input: { "aria-label": `Choose ${each.title}` } }}
          />
          <Box sx={{ minWidth: 0 }}>
            <Typography sx={{ fontFamily: SERIF, fontSize: "1.05rem", overflowWrap: "anywhere" }}>{each.title}</Typography>
            <Typography variant="body2" color="textSecondary">
              <Link component={RouterLink} to={`/meetings/${each.meeting_id}${fragmentFor(each.start, each.end)}`}>
                {each.meeting}, {clock(each.start)} to {clock(each.end)}
              </Link>
              {` · ${each.speakers.join(", ")}`}
              {each.label && ` · ${each.label}`}
            </Typography>
            <Typography sx={{ mt: 0.5, overflowWrap: "anywhere" }}>{each.quote}</Typography>
            {each.note && (
              <Typography variant="body2" sx={{ mt: 0.5, whiteSpace: "pre-wrap", overflowWrap: "anywhere" }}>
                {each.note}
              </Typography>
            )}
            <Box sx={{ display: "flex", gap: 0.5, ml: -1 }}>
              <Button size="small" color="inherit" aria-label={`Hear ${each.title}`} onClick={() => setHeard([each.id])}>
                Hear
              </Button>
              {each.may_change && (
                <Button size="small" color="inherit" aria-label={`Change ${each.title}`} onClick={() => setChanging(each)}>
                  Change
                </Button>
              )}
              {each.may_change && (
                <Button size="small" color="inherit" aria-label={`Remove ${each.title}`} onClick={() => void remove(each)}>
                  Remove
                </Button>
              )}
            </Box>
          </Box>
        </Box>
      ))}
      {list.hasNextPage && (
        <Button sx={{ justifySelf: "start" }} disabled={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
          Show more ({total - shown.length} more)
        </Button>
      )}
      {changing && (
        <ExcerptForm
          title="Change the excerpt"
          meetingId={changing.meeting_id}
          draft={bodyOf(changing)}
          onClose={() => setChanging(null)}
          onKeep={async (draft) => {
            const path = { excerpt_id: changing.id };
            if (!(await carry(body(client.PUT("/api/excerpts/{excerpt_id}", { params: { path }, body: draft }))))) return;
            setChosen((old) => old.map((each) => (each.id === changing.id ? { ...each, ...draft } : each)));
            setChanging(null);
          }}
        />
      )}
    </Box>
  );
}

const bodyOf = ({ start, end, title, note, label }: Excerpt): Schemas["NewExcerpt"] => ({ start, end, title, note, label });
