import { Box, Button, Typography } from "@mui/material";
import { Link, useLocation } from "react-router";

import { useTitle } from "../../shared/useTitle";

/** An address that leads nowhere. */
export default function Nowhere() {
  const { pathname } = useLocation();
  useTitle("Not there");
  return (
    <Box sx={{ maxWidth: 640, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 2, justifyItems: "start" }}>
      <Typography variant="h1">There is nothing at this address</Typography>
      <Typography sx={{ overflowWrap: "anywhere" }}>
        “{pathname.slice(0, 200)}” leads nowhere. If you typed it, look for a slip; if somebody sent it to you, ask for the link again.
      </Typography>
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="contained" component={Link} to="/">
          Go to Today
        </Button>
        <Button color="inherit" component={Link} to="/archive">
          Look in the Archive
        </Button>
      </Box>
    </Box>
  );
}
