import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";

import { body, client, type Schemas } from "../../api/client";

type Role = Schemas["RoleIn"]["role"];

/** What can be done with the people of the workspace; each answers with all of them as they are then. */
export function usePeopleActions() {
  const queries = useQueryClient();
  return useMemo(() => {
    const keep = (next: Schemas["PeopleOut"]) => {
      queries.setQueryData(["people"], next);
    };
    const at = (person_id: number) => ({ params: { path: { person_id } } });
    return {
      add: async (name: string, distinction: string) => keep(await body(client.POST("/api/people", { body: { name, distinction } }))),
      call: async (id: number, name: string, distinction: string) =>
        keep(await body(client.PUT("/api/people/{person_id}", { ...at(id), body: { name, distinction } }))),
      remove: async (id: number) => keep(await body(client.DELETE("/api/people/{person_id}", at(id)))),
      invite: async (id: number, email: string, role: Role) => {
        const answer = await body(client.POST("/api/people/{person_id}/invitation", { ...at(id), body: { email, role } }));
        keep(answer.people);
        return answer.link;
      },
      withdraw: async (id: number) => keep(await body(client.DELETE("/api/people/{person_id}/invitation", at(id)))),
      giveRole: async (id: number, role: Role) =>
        keep(await body(client.PUT("/api/people/{person_id}/role", { ...at(id), body: { role } }))),
      merge: async (id: number, into: number) => {
        keep(await body(client.POST("/api/people/{person_id}/merge", { ...at(id), body: { into } })));
        await queries.invalidateQueries({ queryKey: ["meetings"] });
      },
      undoMerging: async (merging_id: number) => {
        keep(await body(client.DELETE("/api/people/mergings/{merging_id}", { params: { path: { merging_id } } })));
        await queries.invalidateQueries({ queryKey: ["meetings"] });
      },
    };
  }, [queries]);
}

export type PeopleActions = ReturnType<typeof usePeopleActions>;
