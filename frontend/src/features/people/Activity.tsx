import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow, Typography } from "@mui/material";
import { useInfiniteQuery } from "@tanstack/react-query";

import { body, client } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { moment } from "../../shared/times";

/** Who did what in the workspace, for administrators; never a word of a meeting. */
export function Activity() {
  const pages = useInfiniteQuery({
    queryKey: ["activity"],
    queryFn: ({ pageParam }) => body(client.GET("/api/activity", { params: { query: pageParam === null ? {} : { before: pageParam } } })),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => (last.more ? (last.activities.at(-1)?.id ?? null) : null),
  });
  if (pages.isPending) return <Loading what="the activity" />;
  if (pages.error) return <Failure error={pages.error} onRetry={() => void pages.refetch()} />;
  const rows = pages.data.pages.flatMap((page) => page.activities);
  return (
    <Box sx={{ overflowX: "auto" }}>
      <Typography color="textSecondary" sx={{ mb: 1 }}>
        Sign-ins, invitations, roles, removals, and files downloaded. What was said in meetings is never here; meetings stand by their
        numbers.
      </Typography>
      <Table size="small" aria-label="Activity">
        <TableHead>
          <TableRow>
            <TableCell>When</TableCell>
            <TableCell>Who</TableCell>
            <TableCell>What</TableCell>
            <TableCell>From</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((row) => (
            <TableRow key={row.id}>
              <TableCell sx={{ whiteSpace: "nowrap", fontVariantNumeric: "tabular-nums" }}>{moment(row.at)}</TableCell>
              <TableCell>{row.by}</TableCell>
              <TableCell sx={{ overflowWrap: "anywhere" }}>
                {row.what}
                {row.about && (
                  <Box component="span" sx={{ color: "text.secondary" }}>
                    {" "}
                    · {row.about}
                  </Box>
                )}
              </TableCell>
              <TableCell sx={{ color: "text.secondary" }}>{row.address}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {pages.hasNextPage && (
        <Button sx={{ mt: 1 }} disabled={pages.isFetchingNextPage} onClick={() => void pages.fetchNextPage()}>
          Show earlier ones
        </Button>
      )}
    </Box>
  );
}
