import { useMemo } from "react";

import { useNotice } from "../../app/notices";
import { copy, type Copied } from "../../shared/copy";
import { addressOf, copiedLines, copiedMinutes } from "./copied";
import type { LineUses } from "./LineMenu";
import type { Progress } from "./lineDraft";
import type { Section } from "./sections";
import type { Line } from "./types";
import type { RecordActions } from "./useRecord";

/** The line beside a line in its section; undefined where there is none. */
export function beside(sections: readonly Section[], line: Line, step: 1 | -1): Line | undefined {
  const lines = sections.find((section) => section.lines.includes(line))?.lines ?? [];
  return lines[lines.indexOf(line) + step];
}

/** What can be done with lines beside reading them: moved, joined, copied, their progress set. */
export function useLineUses(
  meetingId: string,
  sections: readonly Section[],
  actions: Pick<RecordActions, "changeLine" | "joinLines">,
  onChange: (line: Line) => void,
) {
  const notice = useNotice();
  return useMemo(() => {
    const page = `${location.origin}/meetings/${meetingId}`;
    const put = async (copied: Copied, what: string) => {
      try {
        await copy(copied);
        notice({ text: `${what} copied.`, severity: "info" });
      } catch {
        notice({ text: "The browser does not allow copying here. Choose the text and copy it by hand.", severity: "error" });
      }
    };
    const uses: LineUses = {
      onChange,
      onMove: (line, step) => {
        const next = beside(sections, line, step);
        if (next) void actions.changeLine(line.id, step > 0 ? { after: next.id } : { before: next.id });
      },
      onJoin: (line) => {
        const next = beside(sections, line, 1);
        if (next) void actions.joinLines(line.id, next.id);
      },
      onCopy: (lines) => void put(copiedLines(lines, page), lines.length === 1 ? "The line is" : `${lines.length} lines are`),
      onLink: (line) => {
        const address = addressOf(page, line);
        void put({ text: address, html: address }, "The link is");
      },
    };
    return {
      uses,
      onProgress: (line: Line, progress: Progress) => void actions.changeLine(line.id, { progress }),
      copyAll: (title: string) => void put(copiedMinutes(title, sections, page), "The minutes are"),
    };
  }, [actions, meetingId, notice, onChange, sections]);
}
