import { useTheme } from "@mui/material";
import type { Ref } from "react";

import { SERIF } from "../../theme/theme";
import { ROW, type layout, type Placed } from "./layout";

interface Props {
  ref: Ref<SVGSVGElement>;
  made: ReturnType<typeof layout>;
  open: ReadonlySet<string>;
  at: string;
  zoom: number;
  onTurn: (id: string) => void;
}

/** The map as a drawing; its looks stand on its elements, so that it can be saved as it is. */
export function Drawing({ ref, made, open, at, zoom, onTurn }: Props) {
  const { palette } = useTheme();
  const byId = new Map(made.nodes.map((each) => [each.node.id, each]));
  return (
    <svg
      ref={ref}
      role="tree"
      aria-label="Topic map"
      viewBox={`0 0 ${made.width} ${made.height}`}
      width={made.width * zoom}
      height={made.height * zoom}
      fontFamily={SERIF}
      fontSize={14}
      style={{ background: palette.background.default, display: "block" }}
    >
      <rect width={made.width} height={made.height} fill={palette.background.default} />
      {made.nodes.map((each) => {
        const parent = each.parent === null ? undefined : byId.get(each.parent);
        return parent && <path key={each.node.id} d={branch(parent, each)} fill="none" stroke={palette.divider} strokeWidth={1.5} />;
      })}
      {made.nodes.map((each) => (
        <Node key={each.node.id} placed={each} open={open.has(each.node.id)} chosen={at === each.node.id} onTurn={onTurn} />
      ))}
    </svg>
  );
}

/** A line from the right edge of a node to the left edge of its child, with square turns. */
function branch(from: Placed, to: Placed): string {
  const [x, y, end, foot] = [from.x + from.width, from.y + from.height / 2, to.x, to.y + to.height / 2];
  const middle = (x + end) / 2;
  return `M${x} ${y}H${middle}V${foot}H${end}`;
}

function Node({ placed, open, chosen, onTurn }: { placed: Placed; open: boolean; chosen: boolean; onTurn: (id: string) => void }) {
  const { palette } = useTheme();
  const { node, x, y, width, height, rows, depth } = placed;
  const isLine = node.line !== undefined;
  return (
    <g
      role="treeitem"
      aria-level={depth + 1}
      aria-expanded={isLine ? undefined : open}
      aria-label={isLine || open ? node.text : `${node.text} ${node.children.length}`}
      tabIndex={chosen ? 0 : -1}
      data-node={node.id}
      onClick={() => onTurn(node.id)}
      cursor="pointer"
    >
      <rect
        x={x}
        y={y}
        width={width}
        height={height}
        rx={4}
        fill={isLine ? palette.background.default : depth === 0 ? palette.wash : palette.background.paper}
        stroke={isLine ? "none" : palette.divider}
      />
      {isLine && <rect x={x} y={y + 4} width={3} height={height - 8} fill={palette.primary.main} />}
      {rows.map((row, n) => (
        <text key={n} x={x + 12} y={y + 7 + ROW * (n + 0.75)} fill={palette.text.primary} fontWeight={isLine ? 400 : 600}>{`${row} `}</text>
      ))}
      {!isLine && !open && (
        <text x={x + width - 8} y={y + height / 2 + 5} textAnchor="end" fill={palette.text.secondary} fontSize={12}>
          {node.children.length}
        </text>
      )}
    </g>
  );
}
