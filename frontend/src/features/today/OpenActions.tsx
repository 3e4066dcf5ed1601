import { Box, Button, Link, ToggleButton, ToggleButtonGroup, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";

import type { Schemas } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { day, localMoment } from "../../shared/times";
import { SERIF } from "../../theme/theme";
import { actionGroups } from "./actionGroups";
import { useOpenActions } from "./useOpenActions";

/** What is still to be done, by when: one's own or everybody's; done at one press, with a way back. */
export function OpenActions() {
  const { query, mine, setMine, more, finish } = useOpenActions();
  const { data, error } = query;
  const groups = actionGroups(data?.actions ?? [], localMoment(new Date()).slice(0, 10));
  const left = (data?.total ?? 0) - (data?.actions.length ?? 0);
  return (
    <Box component="section" aria-label={`Open actions (${data?.total ?? 0})`} sx={{ minWidth: 0 }}>
      <Box sx={{ display: "flex", alignItems: "end", gap: 1, borderBottom: 1, borderColor: "divider", pb: 0.5, mb: 1 }}>
        <Typography variant="h3" component="h2" sx={{ color: "text.secondary", flex: 1 }}>
          Open actions ({data?.total ?? 0})
        </Typography>
        <ToggleButtonGroup
          size="small"
          exclusive
          value={mine}
          onChange={(_, next: boolean | null) => next !== null && setMine(next)}
          aria-label="Whose actions"
          sx={{ "& .MuiToggleButton-root": { py: 0, px: 1, textTransform: "none" } }}
        >
          <ToggleButton value={true}>Mine</ToggleButton>
          <ToggleButton value={false}>All</ToggleButton>
        </ToggleButtonGroup>
      </Box>
      {groups.map((group) => (
        <Box key={group.title} role="group" aria-label={group.title}>
          <Typography variant="body2" sx={{ mt: 1.5, fontWeight: 600, color: group.overdue ? "error.main" : "text.secondary" }}>
            {group.title} ({group.actions.length})
          </Typography>
          {group.actions.map((action) => (
            <Action key={action.line_id} action={action} overdue={group.overdue} onDone={() => void finish(action)} />
          ))}
        </Box>
      ))}
      {left > 0 && (
        <Button size="small" color="inherit" sx={{ mt: 1 }} onClick={more}>
          Show more ({left} left)
        </Button>
      )}
      {data?.total === 0 && (
        <Typography color="textSecondary" sx={{ py: 1 }}>
          {mine ? "Nothing of yours is waiting to be done." : "Nothing is waiting to be done."}
        </Typography>
      )}
      {error && <Failure error={error} onRetry={() => void query.refetch()} />}
    </Box>
  );
}

function Action({ action, overdue, onDone }: { action: Schemas["OpenAction"]; overdue: boolean; onDone: () => void }) {
  return (
    <Box sx={{ py: 1, borderBottom: 1, borderColor: "divider", display: "flex", gap: 1, alignItems: "start" }}>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Link
          component={RouterLink}
          to={`/meetings/${action.meeting_id}#line-${action.line_id}`}
          color="inherit"
          underline="hover"
          sx={{ fontFamily: SERIF, overflowWrap: "anywhere" }}
        >
          {action.text}
        </Link>
        <Typography variant="body2" color="textSecondary">
          {action.owner.length ? (
            action.owner.join(", ")
          ) : (
            <Box component="span" sx={{ color: "error.main" }}>
              Nobody took this on
            </Box>
          )}
          {" · "}
          <Box component="span" sx={{ color: overdue ? "error.main" : undefined }}>
            {action.due ? `by ${day(action.due)}` : "no date named"}
          </Box>
          {" · "}
          {action.meeting}
        </Typography>
      </Box>
      <Button size="small" color="inherit" aria-label={`Done: ${action.text}`} onClick={onDone}>
        Done
      </Button>
    </Box>
  );
}
