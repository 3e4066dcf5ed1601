import { useState } from "react";

import { sentenceOf } from "../api/client";

/** Carries out one thing at a time: whether it is under way, and the sentence where it failed. `run` tells whether it succeeded. */
export function useAttempt(): { busy: boolean; error: string; run: (work: () => Promise<unknown>) => Promise<boolean> } {
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState("");
  const run = async (work: () => Promise<unknown>) => {
    setBusy(true);
    setError("");
    try {
      await work();
      return true;
    } catch (problem) {
      setError(sentenceOf(problem));
      return false;
    } finally {
      setBusy(false);
    }
  };
  return { busy, error, run };
}
