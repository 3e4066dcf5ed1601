import { useEffect } from "react";

/** Lets the browser ask before the page is left, as long as something would be lost or held up. */
export function useLeaveWarning(active: boolean): void {
  useEffect(() => {
    if (!active) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [active]);
}
