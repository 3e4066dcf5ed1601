import { Alert, Button } from "@mui/material";

import { sentenceOf } from "../api/client";

/** A failure with its sentence, and a way to try again. */
export function Failure({ error, onRetry }: { error: unknown; onRetry?: () => void }) {
  const retry = onRetry && (
    <Button color="inherit" onClick={onRetry}>
      Try again
    </Button>
  );
  return (
    <Alert severity="error" variant="outlined" action={retry} sx={{ m: 2 }}>
      {sentenceOf(error)}
    </Alert>
  );
}
