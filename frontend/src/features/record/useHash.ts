import { useEffect, useRef } from "react";

import { fragmentOf } from "./fragment";
import type { Line, RecordData } from "./types";

/** Goes to the line (`#line-7`) or the moment (`#t=12.5`, W3C Media Fragments) that the address names. */
export function useHash(
  hash: string,
  record: RecordData,
  select: (line: Line) => void,
  play: (from: number, until?: number) => void,
  show: (seconds: number) => void,
): void {
  const done = useRef("");
  useEffect(() => {
    if (done.current === hash) return;
    done.current = hash;
    const line = record.minutes?.lines.find((l) => `#line-${l.id}` === hash);
    const moment = fragmentOf(hash);
    if (line) select(line);
    if (moment) {
      play(moment.start, moment.end ?? undefined);
      show(moment.start);
    }
  }, [hash, play, record, select, show]);
}
