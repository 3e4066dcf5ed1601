import { useQuery, useQueryClient } from "@tanstack/react-query";

import { body, client, type Schemas } from "../../api/client";

export type Account = Schemas["AccountOut"];

/** One's own account, and what can be done with it; each change answers with the account as it is then. */
export function useAccount() {
  const queries = useQueryClient();
  const account = useQuery({ queryKey: ["account"], queryFn: () => body(client.GET("/api/account")) });
  const keep = (next: Account) => {
    queries.setQueryData(["account"], next);
  };
  return {
    account,
    rename: async (name: string) => {
      keep(await body(client.PUT("/api/account/name", { body: { name } })));
      await Promise.all([queries.invalidateQueries({ queryKey: ["session"] }), queries.invalidateQueries({ queryKey: ["people"] })]);
    },
    move: async (email: string, password: string) => keep(await body(client.PUT("/api/account/email", { body: { email, password } }))),
    changePassword: async (present: string, password: string) =>
      keep(await body(client.PUT("/api/account/password", { body: { present, password } }))),
    newSecret: () => body(client.GET("/api/account/second-factor")),
    turnOn: async (secret: string, code: string, password: string) => {
      const { codes, account: next } = await body(client.POST("/api/account/second-factor", { body: { secret, code, password } }));
      keep(next);
      return codes;
    },
    newCodes: async (password: string) => {
      const { codes, account: next } = await body(client.POST("/api/account/second-factor/recovery", { body: { password } }));
      keep(next);
      return codes;
    },
    turnOff: async (password: string) => keep(await body(client.POST("/api/account/second-factor/off", { body: { password } }))),
    endSession: async (session_id: number) =>
      keep(await body(client.DELETE("/api/account/sessions/{session_id}", { params: { path: { session_id } } }))),
    endOthers: async () => keep(await body(client.DELETE("/api/account/sessions"))),
  };
}

export type AccountActions = Omit<ReturnType<typeof useAccount>, "account">;
