import { Box, Tab, Tabs, Typography } from "@mui/material";
import type { ReactNode } from "react";
import { Link, useParams } from "react-router";

import { useSession } from "../entry/useSession";
import { Activity } from "../people/Activity";
import { People } from "../people/People";
import { Templates } from "./Templates";
import { Trust } from "./Trust";
import { Vocabulary } from "./Vocabulary";
import { useTitle } from "../../shared/useTitle";

const PARTS: { key: string; label: string; view: () => ReactNode; administrators?: boolean }[] = [
  { key: "templates", label: "Templates", view: Templates },
  { key: "vocabulary", label: "Vocabulary", view: Vocabulary },
  { key: "people", label: "People", view: People },
  { key: "trust", label: "How far to trust", view: Trust },
  { key: "activity", label: "Activity", view: Activity, administrators: true },
];

/** What a team sets up for itself, part by part. */
export default function Setup() {
  useTitle("Set-up");
  const { part } = useParams();
  const { session } = useSession();
  const parts = PARTS.filter((each) => !each.administrators || session.administrator);
  const chosen = parts.find((each) => each.key === part) ?? parts[0];
  if (!chosen) return null;
  return (
    <Box sx={{ maxWidth: 1000, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 2 }}>
      <Typography variant="h1">Set-up</Typography>
      <Tabs
        value={chosen.key}
        aria-label="Parts of the set-up"
        variant="scrollable"
        allowScrollButtonsMobile
        sx={{ borderBottom: 1, borderColor: "divider" }}
      >
        {parts.map(({ key, label }) => (
          <Tab key={key} value={key} label={label} component={Link} to={`/setup/${key}`} sx={{ textTransform: "none" }} />
        ))}
      </Tabs>
      <chosen.view />
    </Box>
  );
}
