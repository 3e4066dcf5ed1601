import { useQuery } from "@tanstack/react-query";

import { client, type Schemas } from "../api/client";

const LOOK = 60_000; // milliseconds between two looks

/** What does not work on the server's machine; nothing while all is well or the server is out of reach. */
export function useHealth(): Schemas["HealthFault"][] {
  const health = useQuery({
    queryKey: ["health"],
    queryFn: async () => faultsOf(await client.GET("/api/health")),
    refetchInterval: LOOK,
    retry: false,
  });
  return health.data ?? [];
}

/** The faults of an answer, whether it came as a success or as "down" (503). */
export function faultsOf(answer: { data?: Schemas["Health"]; error?: unknown }): Schemas["HealthFault"][] {
  const down =
    answer.error && typeof answer.error === "object" && "faults" in answer.error ? (answer.error as Schemas["Health"]) : undefined;
  return (answer.data ?? down)?.faults ?? [];
}
