import { useQuery } from "@tanstack/react-query";

import { bodyAs, client } from "../api/client";

/** All templates of the workspace: the shipped ones first, then its own. */
export function useTemplates() {
  return useQuery({ queryKey: ["templates"], queryFn: () => bodyAs("TemplatesOut", client.GET("/api/templates")), staleTime: 60_000 });
}
