import DarkModeOutlined from "@mui/icons-material/DarkModeOutlined";
import LightModeOutlined from "@mui/icons-material/LightModeOutlined";
import PersonOutlined from "@mui/icons-material/PersonOutlined";
import { Box, Button, IconButton, Link, Tooltip, Typography } from "@mui/material";
import { Link as RouterLink, NavLink, Outlet, useNavigate } from "react-router";

import { useSession } from "../features/entry/useSession";
import { ExportsButton } from "../features/exports/ExportsButton";
import { RecordingBar } from "../features/room/RecordingBar";
import { SERIF } from "../theme/theme";
import { useModeToggle } from "../theme/useMode";
import { HealthNotice } from "./HealthNotice";
import { useJobEvents } from "./useJobEvents";
import { KeySheet } from "./KeySheet";
import { useKeys } from "./keys";

const PLACES = [
  { to: "/", label: "Today", end: true },
  { to: "/archive", label: "Archive" },
  { to: "/excerpts", label: "Excerpts" },
  { to: "/setup", label: "Set-up" },
  { to: "/about", label: "About" },
];

/** The frame around every view: where one is, where one can go. */
export function Shell() {
  const { session, signOut } = useSession();
  const { mode, toggle } = useModeToggle();
  const navigate = useNavigate();
  useJobEvents();
  useKeys("Everywhere", [{ key: "t", label: "Go to Today", run: () => void navigate("/") }]);
  return (
    <Box sx={{ display: "flex", flexDirection: "column", height: "100dvh" }}>
      <Link
        href="#view"
        sx={{ position: "absolute", left: -999, "&:focus": { left: 8, top: 8, zIndex: 9, bgcolor: "background.paper", p: 1 } }}
      >
        Skip to the view
      </Link>
      <Box
        component="header"
        sx={{
          display: "flex",
          alignItems: "center",
          gap: { xs: 0.5, sm: 3 },
          px: { xs: 1, sm: 3 },
          minHeight: 48,
          borderBottom: 1,
          borderColor: "divider",
          flex: "none",
        }}
      >
        <Typography component="span" sx={{ fontFamily: SERIF, fontWeight: 600, fontSize: "1.05rem", display: { xs: "none", sm: "block" } }}>
          Nuntius
        </Typography>
        <Box component="nav" aria-label="Views" sx={{ display: "flex", gap: { xs: 0.25, sm: 1 } }}>
          {PLACES.map((place) => (
            <Link
              key={place.to}
              component={NavLink}
              to={place.to}
              end={place.end}
              underline="none"
              sx={{
                px: { xs: 0.6, sm: 1 },
                fontSize: { xs: "0.9rem", sm: "inherit" },
                py: 0.6,
                color: "text.secondary",
                borderRadius: 1,
                whiteSpace: "nowrap",
                "&.active": { color: "text.primary", fontWeight: 700, bgcolor: "wash" },
              }}
            >
              {place.label}
            </Link>
          ))}
        </Box>
        <Box sx={{ ml: "auto", display: "flex", alignItems: "center", gap: { xs: 0, sm: 1 }, minWidth: 0 }}>
          <Typography variant="body2" color="textSecondary" noWrap sx={{ display: { xs: "none", md: "block" } }}>
            <Link component={RouterLink} to="/account" color="inherit" underline="hover" title="Your account">
              {session.name}
            </Link>{" "}
            · {session.workspace}
          </Typography>
          <Tooltip title="Your account">
            <IconButton
              size="small"
              component={RouterLink}
              to="/account"
              aria-label="Your account"
              sx={{ display: { xs: "inline-flex", md: "none" } }}
            >
              <PersonOutlined fontSize="small" />
            </IconButton>
          </Tooltip>
          <ExportsButton />
          <Tooltip title={mode === "light" ? "Dark" : "Light"}>
            <IconButton size="small" onClick={toggle} aria-label={mode === "light" ? "Switch to dark" : "Switch to light"}>
              {mode === "light" ? <DarkModeOutlined fontSize="small" /> : <LightModeOutlined fontSize="small" />}
            </IconButton>
          </Tooltip>
          <Button
            size="small"
            color="inherit"
            onClick={() => void signOut()}
            sx={{ whiteSpace: "nowrap", display: { xs: "none", sm: "inline-flex" } }}
          >
            Sign out
          </Button>
        </Box>
      </Box>
      <RecordingBar />
      <HealthNotice />
      <Box component="main" id="view" tabIndex={-1} sx={{ flex: 1, minHeight: 0, overflow: "auto", outline: "none" }}>
        <Outlet />
      </Box>
      <KeySheet />
    </Box>
  );
}
