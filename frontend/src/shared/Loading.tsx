import { Box, CircularProgress, Typography } from "@mui/material";

/** What stands in place of something that is being fetched. */
export function Loading({ what }: { what: string }) {
  return (
    <Box role="status" sx={{ display: "flex", gap: 2, alignItems: "center", justifyContent: "center", p: 6 }}>
      <CircularProgress size={20} />
      <Typography color="textSecondary">Opening {what} …</Typography>
    </Box>
  );
}
