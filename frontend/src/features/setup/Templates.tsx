import { Box, Button, Chip, Paper, Typography } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { body, bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { useTemplates } from "../../shared/useTemplates";
import { TemplateEditor } from "./TemplateEditor";
import { copyOf, type Template } from "./templateDraft";

type Kept = Schemas["TemplateOut"];

/** The shipped templates and the team's own: what each has in which order. */
export function Templates() {
  const templates = useTemplates();
  const queries = useQueryClient();
  const notice = useNotice();
  const [editing, setEditing] = useState<{ id: number | null; template: Template } | null>(null);
  if (templates.isPending) return <Loading what="the templates" />;
  if (templates.error) return <Failure error={templates.error} onRetry={() => void templates.refetch()} />;
  const refresh = () => queries.invalidateQueries({ queryKey: ["templates"] });
  const keep = async (template: Template) => {
    const id = editing?.id ?? null;
    if (id === null) await bodyAs("TemplateOut", client.POST("/api/templates", { body: template }));
    else await bodyAs("TemplateOut", client.PUT("/api/templates/{template_id}", { params: { path: { template_id: id } }, body: template }));
    await refresh();
    setEditing(null);
  };
  const bringBack = async (template: Kept) => {
    try {
      await bodyAs("TemplateOut", client.POST("/api/templates", { body: { ...copyOf(template), name: template.name } }));
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
    }
    await refresh();
  };
  const remove = async (template: Kept) => {
    try {
      await body(client.DELETE("/api/templates/{template_id}", { params: { path: { template_id: template.id ?? 0 } } }));
      notice({
        text: `“${template.name}” was removed. Meetings that had it go by the template of their kind.`,
        severity: "info",
        action: { label: "Bring it back", run: () => void bringBack(template) },
      });
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
    }
    await refresh();
  };
  const { templates: all, kinds } = templates.data;
  return (
    <>
      <Typography color="textSecondary">
        What the minutes of a kind of meeting hold, and in which order. A meeting’s template can be changed at any time; what people wrote,
        ticked or threw out stays.
      </Typography>
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { md: "1fr 1fr" }, alignItems: "start" }}>
        {[...all]
          .sort((a, b) => Number(a.id === null) - Number(b.id === null))
          .map((template) => (
            <Paper key={template.key} sx={{ p: 2, display: "grid", gap: 1 }} component="section" aria-label={template.name}>
              <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
                <Typography variant="h2" sx={{ flex: 1, overflowWrap: "anywhere", "&::first-letter": { textTransform: "uppercase" } }}>
                  {template.name}
                </Typography>
                {template.id !== null && (
                  <Chip size="small" variant="outlined" label={template.may_change ? "your own" : "the team’s own"} />
                )}
              </Box>
              <Typography variant="body2">{template.sections.map((section) => section.title).join(" · ")}</Typography>
              <Typography variant="body2" color="textSecondary">
                Marks: {template.labels.join(", ") || "none"}
              </Typography>
              {template.agenda.length > 0 && (
                <Typography variant="body2" color="textSecondary">
                  Standing agenda: {template.agenda.join(", ")}
                </Typography>
              )}
              <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, ml: template.may_change ? 0 : -0.6 }}>
                {template.may_change && (
                  <Button
                    size="small"
                    variant="outlined"
                    onClick={() => setEditing({ id: template.id, template })}
                    aria-label={`Change ${template.name}`}
                  >
                    Change
                  </Button>
                )}
                <Button
                  size="small"
                  color={template.id === null ? "primary" : "inherit"}
                  onClick={() => setEditing({ id: null, template: copyOf(template) })}
                  aria-label={`Make an own one from it: ${template.name}`}
                >
                  Make an own one from it
                </Button>
                {template.may_change && (
                  <Button size="small" color="inherit" onClick={() => void remove(template)} aria-label={`Remove ${template.name}`}>
                    Remove
                  </Button>
                )}
              </Box>
            </Paper>
          ))}
      </Box>
      {editing && <TemplateEditor key={editing.id} start={editing.template} kinds={kinds} onKeep={keep} onClose={() => setEditing(null)} />}
    </>
  );
}
