import { Alert, Collapse } from "@mui/material";

import { useHealth } from "./useHealth";

/** A bar under the header while something on the server's machine does not work. */
export function HealthNotice() {
  const faults = useHealth();
  return (
    <Collapse in={faults.length > 0} sx={{ flex: "none" }}>
      {faults.map((fault) => (
        <Alert key={fault.name} severity="warning" sx={{ borderRadius: 0 }}>
          {fault.detail}
        </Alert>
      ))}
    </Collapse>
  );
}
