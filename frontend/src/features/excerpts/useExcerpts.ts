import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";

import { body, client, type Schemas } from "../../api/client";

/** What the list is narrowed to; "" stands for all. */
export interface Narrowed {
  words: string;
  meeting: string;
  person: string;
  label: string;
}

export const EVERYTHING: Narrowed = { words: "", meeting: "", person: "", label: "" };

/** Whether nothing is left out. */
export function isWide(narrowed: Narrowed): boolean {
  return Object.values(narrowed).every((value) => !(value as string).trim());
}

/** The question to the server for a page of those that fit. */
export function queryFor({ person, ...rest }: Narrowed, after: string | null) {
  return { ...rest, ...(person ? { person: Number(person) } : {}), ...(after === null ? {} : { after }) };
}

/** The excerpts that fit, fifty at a time, and what can be chosen among all. */
export function useExcerpts(narrowed: Narrowed) {
  const wanted = useDeferredValue(narrowed);
  const pages = useInfiniteQuery({
    queryKey: ["excerpts", wanted],
    queryFn: ({ pageParam }): Promise<Schemas["ExcerptsOut"]> =>
      body(client.GET("/api/excerpts", { params: { query: queryFor(wanted, pageParam) } })),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.after,
    placeholderData: keepPreviousData,
  });
  const all = pages.data?.pages ?? [];
  const { isPending, error, refetch, hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  return {
    excerpts: all.flatMap((page) => page.excerpts),
    total: all[0]?.total ?? 0,
    meetings: all[0]?.meetings ?? [],
    people: all[0]?.people ?? [],
    labels: all[0]?.labels ?? [],
    ...{ isPending, error, refetch, hasNextPage, isFetchingNextPage, fetchNextPage },
  };
}
