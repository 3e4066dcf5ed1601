import { IconButton, Tooltip } from "@mui/material";
import type { MouseEvent, ReactNode } from "react";

interface Props {
  label: string;
  title: string;
  menu?: boolean;
  onClick: (event: MouseEvent<HTMLElement>) => void;
  children: ReactNode;
}

/** A small button beside a line. */
export function Tool({ label, title, menu = false, onClick, children }: Props) {
  return (
    <Tooltip title={title}>
      <IconButton
        size="small"
        aria-label={label}
        aria-haspopup={menu ? "menu" : undefined}
        sx={{ width: 26, height: 26, p: 0 }}
        onClick={(e) => {
          e.stopPropagation();
          onClick(e);
        }}
      >
        {children}
      </IconButton>
    </Tooltip>
  );
}
