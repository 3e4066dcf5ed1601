import { Alert, Button, Snackbar } from "@mui/material";
import { createContext, use, useCallback, useMemo, useState, type ReactNode } from "react";

interface Notice {
  text: string;
  severity: "info" | "error";
  action?: { label: string; run: () => void };
}

const NoticeContext = createContext<(notice: Notice) => void>(() => undefined);

/** Shows short messages at the foot of the page, one at a time. */
export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const [open, setOpen] = useState(false);
  const show = useCallback((next: Notice) => {
    setNotice(next);
    setOpen(true);
  }, []);
  const action = useMemo(() => {
    if (!notice?.action) return undefined;
    const { label, run } = notice.action;
    return (
      <Button
        color="inherit"
        size="small"
        onClick={() => {
          setOpen(false);
          run();
        }}
      >
        {label}
      </Button>
    );
  }, [notice]);
  return (
    <NoticeContext value={show}>
      {children}
      <Snackbar
        open={open}
        autoHideDuration={notice?.severity === "error" ? 9000 : 5000}
        onClose={(_, reason) => reason !== "clickaway" && setOpen(false)}
        anchorOrigin={{ vertical: "bottom", horizontal: "center" }}
        sx={{ mb: 7 }}
      >
        <Alert
          severity={notice?.severity ?? "info"}
          variant="filled"
          icon={false}
          action={action}
          onClose={action ? undefined : () => setOpen(false)}
        >
          {notice?.text}
        </Alert>
      </Snackbar>
    </NoticeContext>
  );
}

export const useNotice = (): ((notice: Notice) => void) => use(NoticeContext);
