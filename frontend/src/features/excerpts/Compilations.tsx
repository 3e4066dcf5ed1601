import { Box, Link, Typography } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import Close from "@mui/icons-material/Close";
import { Link as RouterLink } from "react-router";

import { bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { lasting } from "../../shared/times";
import { compilationBody } from "../compilations/useCompilation";
import { Tool } from "../record/Tool";

/** The compilations that one has made; nothing where there are none. */
export function Compilations() {
  const query = useQuery({ queryKey: ["compilations"], queryFn: () => bodyAs("CompilationsOut", client.GET("/api/compilations")) });
  const queries = useQueryClient();
  const notice = useNotice();
  const put = (next: Schemas["CompilationsOut"]) => queries.setQueryData(["compilations"], next);
  const remove = async (id: number) => {
    const path = { compilation_id: id };
    try {
      const gone = await bodyAs("CompilationOut", client.GET("/api/compilations/{compilation_id}", { params: { path } }));
      put(await bodyAs("CompilationsOut", client.DELETE("/api/compilations/{compilation_id}", { params: { path } })));
      const back = async () => {
        try {
          await bodyAs("CompilationOut", client.POST("/api/compilations", { body: compilationBody(gone) }));
          await queries.invalidateQueries({ queryKey: ["compilations"] });
        } catch (error) {
          notice({ text: sentenceOf(error), severity: "error" });
        }
      };
      notice({ text: `“${gone.title}” was removed.`, severity: "info", action: { label: "Take back", run: () => void back() } });
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
    }
  };
  const rows = query.data?.compilations ?? [];
  if (!rows.length) return null;
  return (
    <Box component="section" aria-label="Compilations" sx={{ mt: 0 }}>
      <Typography variant="h3" component="h2" sx={{ color: "text.secondary", borderBottom: 1, borderColor: "divider", pb: 0.5 }}>
        Compilations
      </Typography>
      {rows.map((each) => (
        <Box key={each.id} sx={{ display: "flex", alignItems: "baseline", gap: 1, py: 0.5, borderBottom: 1, borderColor: "divider" }}>
          <Link
            component={RouterLink}
            to={`/compilations/${each.id}`}
            color="inherit"
            underline="hover"
            sx={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}
          >
            {each.title}
          </Link>
          <Typography variant="body2" color="textSecondary" sx={{ whiteSpace: "nowrap" }}>
            {each.passages === 1 ? "1 passage" : `${each.passages} passages`}, {lasting(each.seconds)}
          </Typography>
          <Tool label={`Remove ${each.title}`} title="Remove" onClick={() => void remove(each.id)}>
            <Close sx={{ fontSize: 16 }} />
          </Tool>
        </Box>
      ))}
    </Box>
  );
}
