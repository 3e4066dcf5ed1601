import { useCallback, useEffect, useState, type ReactNode } from "react";

import { useNotice } from "../../app/notices";
import { fileAddress, settled } from "./awaited";
import { AwaitContext, useExports } from "./useExports";

/** Saves the files that were asked for on this page as soon as they are there. */
export function ExportProvider({ children }: { children: ReactNode }) {
  const exports = useExports();
  const notice = useNotice();
  const [awaited, setAwaited] = useState<string[]>([]);
  const wait = useCallback((id: string) => setAwaited((old) => [...old, id]), []);
  useEffect(() => {
    const { saved, failed, left } = settled(awaited, exports);
    if (left.length === awaited.length) return;
    setAwaited(left);
    for (const each of saved) download(fileAddress(each.id));
    for (const each of failed) notice({ text: `“${each.name}” was not made. ${each.error ?? ""}`, severity: "error" });
  }, [awaited, exports, notice]);
  return <AwaitContext value={wait}>{children}</AwaitContext>;
}

function download(address: string) {
  const link = document.createElement("a");
  link.href = address;
  link.download = "";
  document.body.append(link);
  link.click();
  link.remove();
}
