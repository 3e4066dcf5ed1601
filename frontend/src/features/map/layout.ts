import type { Schemas } from "../../api/client";

type Minutes = NonNullable<Schemas["RecordOut"]["minutes"]>;

/** A subject or a line on the map. */
export interface MapNode {
  id: string;
  text: string;
  children: MapNode[];
  /** The line of the minutes that it stands for. */
  line?: number;
}

/** Where a node is drawn; lengths in pixels. */
export interface Placed {
  node: MapNode;
  parent: string | null;
  depth: number;
  x: number;
  y: number;
  width: number;
  height: number;
  rows: string[];
}

export const ROW = 19; // height of a row of text
const PAD = 7; // above and below the text of a node
const BETWEEN = 10; // nodes of a column
const WIDTHS = [190, 210, 430]; // of each column
const COLUMN_GAP = 56;
const LETTERS = [22, 26, 62]; // that fit on a row of each column

/** The map of a meeting: its chapters, and in each the lines that rest on it. */
export function tree(title: string, minutes: Minutes): MapNode {
  const kept = minutes.lines.filter((line) => line.thrown_out === null && line.state !== "superseded" && !AGAIN.has(line.kind));
  const chapters = minutes.chapters.map((chapter, number) => ({
    id: `chapter-${number}`,
    text: chapter.title,
    children: kept
      .filter((line) => line.chapter === number)
      .map((line) => ({ id: `line-${line.id}`, text: textOf(line), line: line.id, children: [] })),
  }));
  return { id: "meeting", text: title, children: chapters.filter((chapter) => chapter.children.length > 0) };
}

/** Kinds that tell again, sorted otherwise, what other lines tell. */
const AGAIN: ReadonlySet<string> = new Set(["figure", "named", "turning_point"]);

const LEADS: Partial<Record<Minutes["lines"][number]["kind"], string>> = { decision: "Decided: ", risk: "Risk: ", note: "Note: " };

function textOf(line: Minutes["lines"][number]): string {
  if (line.kind === "action") return `${line.owner.join(", ") || "Nobody yet"}: ${line.text}`;
  return `${LEADS[line.kind] ?? ""}${line.text}`;
}

/** All nodes that are to be seen, with their places; children of nodes that are not in `open` are left out. */
export function layout(root: MapNode, open: ReadonlySet<string>): { nodes: Placed[]; width: number; height: number } {
  const nodes: Placed[] = [];
  let foot = BETWEEN;
  const place = (node: MapNode, depth: number, parent: string | null): Placed => {
    const rows = wrap(node.text, LETTERS[depth] ?? 62);
    const height = rows.length * ROW + 2 * PAD;
    const x = WIDTHS.slice(0, depth).reduce((sum, width) => sum + width + COLUMN_GAP, BETWEEN);
    const made: Placed = { node, parent, depth, x, y: 0, width: WIDTHS[depth] ?? 430, height, rows };
    nodes.push(made);
    const children = open.has(node.id) ? node.children.map((child) => place(child, depth + 1, node.id)) : [];
    const first = children[0];
    if (first) {
      made.y = first.y;
      foot = Math.max(foot, made.y + height + BETWEEN);
    } else {
      made.y = foot;
      foot += height + BETWEEN;
    }
    return made;
  };
  place(root, 0, null);
  return { nodes, width: Math.max(...nodes.map((each) => each.x + each.width)) + BETWEEN, height: foot };
}

/** A text in rows of at most so many letters; a longer word has a row of its own. */
export function wrap(text: string, most: number): string[] {
  const rows: string[] = [];
  for (const word of text.split(/\s+/)) {
    const row = rows.at(-1);
    if (row !== undefined && row.length + word.length < most) rows[rows.length - 1] = `${row} ${word}`;
    else rows.push(word);
  }
  return rows;
}

/** The node that a key leads to from `id`, and which nodes are open then. */
export function step(
  nodes: readonly Placed[],
  open: ReadonlySet<string>,
  id: string,
  key: string,
): { id: string; open: ReadonlySet<string> } {
  const at = nodes.findIndex((each) => each.node.id === id);
  const here = nodes[at];
  if (!here) return { id: "meeting", open };
  const isOpen = open.has(id);
  const child = here.node.children[0];
  if (key === "ArrowDown") return { id: nodes[at + 1]?.node.id ?? id, open };
  if (key === "ArrowUp") return { id: nodes[at - 1]?.node.id ?? id, open };
  if (key === "ArrowRight" && child) return isOpen ? { id: child.id, open } : { id, open: new Set([...open, id]) };
  if (key === "ArrowLeft") return isOpen && child ? { id, open: without(open, id) } : { id: here.parent ?? id, open };
  return { id, open };
}

export function without(open: ReadonlySet<string>, id: string): ReadonlySet<string> {
  return new Set([...open].filter((each) => each !== id));
}
