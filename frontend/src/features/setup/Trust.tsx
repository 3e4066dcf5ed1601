import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";

import { bodyAs, client } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { KIND_NAMES, rightShare } from "./trustShare";

/** How far lines of each kind have been right so far: confirmed, corrected, thrown out. */
export function Trust() {
  const trust = useQuery({ queryKey: ["trust"], queryFn: () => bodyAs("TrustsOut", client.GET("/api/setup/trust")) });
  if (trust.isPending) return <Loading what="the counts" />;
  if (trust.error) return <Failure error={trust.error} onRetry={() => void trust.refetch()} />;
  return (
    <>
      <Typography color="textSecondary">
        What you and the others did with the lines of your meetings: ticked as they were, changed, or threw out. What was thrown out of one
        meeting of a series is not offered again in the next ones.
      </Typography>
      {trust.data.kinds.length === 0 ? (
        <Typography>There are no minutes yet.</Typography>
      ) : (
        <Box sx={{ overflowX: "auto" }}>
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell>Kind of line</TableCell>
                {["Lines", "Looked at", "Confirmed", "Changed", "Thrown out", "Right as written"].map((head) => (
                  <TableCell key={head} align="right">
                    {head}
                  </TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {trust.data.kinds.map((each) => (
                <TableRow key={each.kind}>
                  <TableCell>
                    {KIND_NAMES[each.kind]}
                    {each.reasons.length > 0 && (
                      <Typography variant="body2" color="textSecondary">
                        thrown out: {each.reasons.map(({ reason, lines }) => `${reason} (${lines})`).join(", ")}
                      </Typography>
                    )}
                  </TableCell>
                  {[each.lines, each.confirmed + each.corrected + each.thrown_out, each.confirmed, each.corrected, each.thrown_out].map(
                    (count, at) => (
                      <TableCell key={at} align="right" sx={{ fontVariantNumeric: "tabular-nums" }}>
                        {count}
                      </TableCell>
                    ),
                  )}
                  <TableCell align="right">{rightShare(each)}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Box>
      )}
    </>
  );
}
