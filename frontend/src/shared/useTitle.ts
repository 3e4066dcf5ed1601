import { useEffect } from "react";

/** Names the view in the tab; what is empty yet names the application alone. */
export function useTitle(view: string): void {
  useEffect(() => {
    document.title = view ? `${view} · Nuntius` : "Nuntius";
  }, [view]);
}
