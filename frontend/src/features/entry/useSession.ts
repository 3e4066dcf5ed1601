import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";

import { body, client, setToken, type Schemas } from "../../api/client";

type Session = Schemas["SessionState"];

const NOBODY: Session = {
  signed_in: false,
  csrf: "",
  needs_first_account: false,
  demo: false,
  second_factor: false,
  name: "",
  workspace: "",
  person_id: 0,
  administrator: false,
  mail: false,
};

/** Who is signed in, and how to come and go. */
export function useSession() {
  const queries = useQueryClient();
  const query = useQuery({
    queryKey: ["session"],
    queryFn: async () => keep(await body(client.GET("/api/session"))),
    staleTime: Infinity,
  });
  const enter = useCallback(
    (session: Session) => {
      queries.setQueryData(["session"], keep(session));
    },
    [queries],
  );
  const signIn = useCallback(
    async (email: string, password: string) => enter(await body(client.POST("/api/session", { body: { email, password } }))),
    [enter],
  );
  const giveCode = useCallback(async (code: string) => enter(await body(client.POST("/api/session/code", { body: { code } }))), [enter]);
  const accept = useCallback(
    async (token: string, password: string) => enter(await body(client.POST("/api/invitations/accept", { body: { token, password } }))),
    [enter],
  );
  const begin = useCallback(
    async (account: Schemas["FirstAccount"]) => enter(await body(client.POST("/api/first-account", { body: account }))),
    [enter],
  );
  const signOut = useCallback(async () => {
    await body(client.DELETE("/api/session"));
    location.assign("/");
  }, []);
  const refresh = useCallback(() => queries.invalidateQueries({ queryKey: ["session"] }), [queries]);
  return {
    session: query.data ?? NOBODY,
    loading: query.isPending,
    error: query.error,
    retry: query.refetch,
    signIn,
    giveCode,
    accept,
    begin,
    signOut,
    refresh,
  };
}

function keep(session: Session): Session {
  setToken(session.csrf);
  return session;
}
