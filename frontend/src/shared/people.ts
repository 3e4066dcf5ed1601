import { useQuery } from "@tanstack/react-query";

import { body, client, type Schemas } from "../api/client";

type Person = Schemas["PersonOut"];

/** Everybody the team knows. */
export const usePeople = () => useQuery({ queryKey: ["people"], queryFn: () => body(client.GET("/api/people")) });

/** Two names are the same without regard to case, width and spaces; the server compares likewise. */
const key = (name: string): string => name.normalize("NFKC").toLowerCase().split(/\s+/).filter(Boolean).join(" ");

/** Which account will be able to open a meeting that somebody of this name is added to; "" for no name. */
export function opener(name: string, people: Person[]): string {
  if (!key(name)) return "";
  const exactly = people.filter((person) => key(person.name) === key(name));
  const found = exactly.length ? exactly : people.filter((person) => key(person.plain) === key(name));
  if (found.length > 1) return `Several people are called ${name.trim()}: ${found.map((person) => person.name).join("; ")}. Say which one.`;
  const [person] = found;
  if (!person) return `${name.trim()} is new here and cannot open it: nobody signs in as them.`;
  return person.account
    ? `${person.name} will be able to open it, as ${person.account.email}.`
    : `${person.name} cannot open it: nobody signs in as them.`;
}

/** In one sentence, who of several people will be able to open a meeting. */
export function openers(names: string[], people: Person[]): string {
  const able = names.flatMap((name) => people.filter((person) => key(person.name) === key(name) && person.account));
  if (!names.length) return "";
  if (!able.length) return "None of them can open it: nobody signs in as them.";
  return `Will be able to open it: ${able.map((person) => `${person.name} (${person.account?.email ?? ""})`).join(", ")}.`;
}
