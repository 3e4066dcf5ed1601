import { useState } from "react";

type Step<T> = () => Promise<T>;

/** Steps one after another: each begins when the one before has ended, well or badly. */
export function inTurn(): <T>(step: Step<T>) => Promise<T> {
  let last: Promise<unknown> = Promise.resolve();
  return (step) => {
    const made = last.then(step);
    last = made.catch(() => undefined);
    return made;
  };
}

/** The same for as long as a view is shown. */
export const useInTurn = () => useState(inTurn)[0];
