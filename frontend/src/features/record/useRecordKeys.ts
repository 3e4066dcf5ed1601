import { useRef } from "react";

import { useKeys } from "../../app/keys";
import { spokeBefore, turnAt } from "./links";
import { turnStart, type Line, type RecordData } from "./types";
import { nextSpeed, type Player } from "./usePlayer";
import type { RecordActions } from "./useRecord";
import type { RecordView } from "./useRecordView";

const BACK = 1.5; // seconds into a turn from which "previous" means the begin of this one

interface Parts {
  record: RecordData;
  player: Player;
  view: RecordView;
  actions: RecordActions;
  onTick: (line: Line) => void;
  onLook: () => void;
  onAsk: () => void;
  onNote: () => void;
  onMark: () => void;
  onSearch: () => void;
}

/** What the keys do on a record. */
export function useRecordKeys({ record, player, view, actions, onTick, onLook, onAsk, onNote, onMark, onSearch }: Parts): void {
  const turnStep = (step: 1 | -1) => {
    const at = turnAt(record.turns, player.position.get() + 0.05);
    const next =
      record.turns[
        Math.max(0, step < 0 && player.position.get() - turnStart(record.turns[at] ?? record.turns[0]!) > BACK ? at : at + step)
      ];
    if (next) {
      player.seek(turnStart(next));
      view.show(turnStart(next));
    }
  };
  const speakerBefore = () => {
    const before = spokeBefore(record.turns, player.position.get());
    if (before !== null) {
      player.seek(before);
      view.show(before);
    }
  };
  const mark = useRef<number | null>(null);
  const markEnd = () => {
    const [from, to] = [mark.current ?? 0, player.position.get()];
    if (to > from) player.loop({ start: from, end: to });
  };
  useKeys("Record", [
    { key: " ", label: "Play or pause", run: player.toggle, over: () => player.playing },
    {
      key: "/",
      label: "Search what was said",
      run: onSearch,
    },
    { key: "ArrowDown", label: "Next line of the minutes", run: () => view.stepLine(1) },
    { key: "ArrowUp", label: "Previous line", run: () => view.stepLine(-1) },
    { key: "n", label: "Next line that is worth a look", run: onLook },
    { key: "Enter", label: "Hear what the line rests on", run: () => view.line && view.playLine(view.line) },
    { key: ".", label: "Next passage of the line", run: () => view.stepPassage(1) },
    { key: ",", label: "Previous passage of the line", run: () => view.stepPassage(-1) },
    { key: "x", label: "Tick the line as checked", run: () => view.line && onTick(view.line) },
    { key: "e", label: "Edit the line", run: () => view.line && view.setEditing(view.line.id) },
    { key: "ArrowRight", shift: false, label: "Five seconds on", run: () => player.seek(player.position.get() + 5) },
    { key: "ArrowLeft", shift: false, label: "Five seconds back", run: () => player.seek(player.position.get() - 5) },
    { key: "ArrowRight", ctrl: true, shown: "Ctrl →", label: "One minute on", run: () => player.seek(player.position.get() + 60) },
    { key: "ArrowLeft", ctrl: true, shown: "Ctrl ←", label: "One minute back", run: () => player.seek(player.position.get() - 60) },
    { key: "ArrowRight", shift: true, shown: "Shift →", label: "Next turn", run: () => turnStep(1) },
    { key: "ArrowLeft", shift: true, shown: "Shift ←", label: "Begin of the turn, or the one before", run: () => turnStep(-1) },
    { key: "p", label: "The last time this person spoke", run: speakerBefore },
    {
      key: "a",
      label: "Repeat from here …",
      run: () => {
        mark.current = player.position.get();
      },
    },
    { key: "b", label: "… to here", run: markEnd },
    {
      key: "l",
      label: "Repeat the line’s passage, or stop repeating",
      run: () => player.loop(player.looping ? null : (view.lit[0] ?? null)),
    },
    { key: ">", label: "Faster", run: () => player.setSpeed(nextSpeed(player.speed, 1)) },
    { key: "<", label: "Slower", run: () => player.setSpeed(nextSpeed(player.speed, -1)) },
    { key: "f", label: "Follow the sound", run: () => view.setFollowing(true) },
    { key: "m", label: "Mark this moment", run: onMark },
    { key: "w", label: "Write a note at this moment", run: onNote },
    { key: "q", label: "Ask the record", run: onAsk },
    { key: "z", ctrl: true, label: "Take the last change back", run: () => void actions.undo() },
    { key: "y", ctrl: true, label: "Do it again", run: () => void actions.redo() },
    {
      key: "Escape",
      label: "Leave the line, or the words chosen",
      run: () => {
        view.leave();
        document.getSelection()?.removeAllRanges();
      },
    },
  ]);
}
