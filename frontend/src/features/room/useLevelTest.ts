import { useCallback, useEffect, useRef, useState } from "react";

import { sentenceOf } from "../../api/client";
import { warningOf, type Level } from "./capture/level";
import { microphones, openSource, type Device, type Opened } from "./capture/source";
import { tap, type Tapping } from "./capture/tapping";

/** Listens to the microphone before a recording, to show its level; nothing is kept or sent. */
export function useLevelTest(wanted: boolean) {
  const [devices, setDevices] = useState<Device[]>([]);
  const [levels, setLevels] = useState<Level[]>([]);
  const [error, setError] = useState("");
  const open = useRef<{ source: Opened; tapping: Tapping } | null>(null);
  const attempt = useRef(0);

  const end = useCallback(() => {
    attempt.current += 1;
    const last = open.current;
    open.current = null;
    setLevels([]);
    if (last) void last.tapping.end().finally(last.source.close);
  }, []);

  const begin = useCallback(
    (deviceId: string) => {
      end();
      const mine = attempt.current;
      setError("");
      const listen = async () => {
        const source = await openSource("microphone", deviceId);
        const tapping = await tap(source.track, (part) => mine === attempt.current && setLevels((old) => [...old.slice(-31), part.level]));
        if (mine !== attempt.current) {
          await tapping.end();
          source.close();
          return;
        }
        open.current = { source, tapping };
        setDevices(await microphones());
      };
      listen().catch((problem: unknown) => mine === attempt.current && setError(sentenceOf(problem)));
    },
    [end],
  );

  useEffect(() => end, [end]);
  useEffect(() => {
    if (!wanted) end();
  }, [end, wanted]);
  return { devices, level: levels[levels.length - 1] ?? null, warning: warningOf(levels), error, begin, end };
}
