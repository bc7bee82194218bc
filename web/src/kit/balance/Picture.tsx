import type { Balance, BalancePicture, PlaceInPicture, Process } from '@cocotte/core/balance';
import type { Kitchen } from '@cocotte/core/kitchen';
import { Box } from '@mui/material';
import { useTheme } from '@mui/material/styles';
import { type SankeyNode, sankey, sankeyJustify, sankeyLinkHorizontal } from 'd3-sankey';
import { useEffect, useMemo, useRef, useState } from 'react';
import { placeName, weightIn } from './words.ts';

interface Band {
  kind: BalancePicture['flows'][number]['kind'];
}
type Node = SankeyNode<PlaceInPicture, Band>;

const BAR = 10;
/** Room above a bar for its two rows of words. */
const LABEL = 40;
const NAME_SIZE = 14.5;
/** How wide a letter is, of its size: our face, on the average. */
const LETTER = 0.56;
const LEAST_HEIGHT = 300;

/** Width of what it stands in, as it changes. */
function useWidth(): [React.RefObject<HTMLDivElement | null>, number] {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const { current } = ref;
    if (!current) return undefined;
    const seen = new ResizeObserver(([entry]) => setWidth(Math.floor(entry?.contentRect.width ?? 0)));
    seen.observe(current);
    return () => seen.disconnect();
  }, []);
  return [ref, width];
}

/** A balance as bands from what goes in to what leaves, as wide as they weigh. Its table says the same. */
export function Picture({
  picture,
  process,
  made,
  kitchen,
  label,
}: {
  picture: BalancePicture;
  process: Process;
  made: Balance;
  kitchen: Pick<Kitchen, 'measures' | 'locale'>;
  /** What a reader of the screen is told of it. */
  label: string;
}) {
  const [ref, width] = useWidth();
  const { palette } = (({ vars, ...t }) => vars ?? t)(useTheme());
  const drawn = useMemo(() => (width > 0 ? layOut(picture, width) : null), [picture, width]);
  const link = sankeyLinkHorizontal<PlaceInPicture, Band>();
  return (
    <Box ref={ref} sx={{ width: '100%', minHeight: LEAST_HEIGHT }}>
      {drawn && (
        <svg width={width} height={drawn.height} role="img" aria-label={label} style={{ display: 'block' }}>
          {drawn.links.map(l => (
            <path
              key={`${(l.source as Node).id} ${(l.target as Node).id} ${l.kind}`}
              d={link(l) ?? ''}
              fill="none"
              stroke={palette.flow[l.kind]}
              strokeWidth={Math.max(1, l.width ?? 0)}
              strokeOpacity={0.85}
            />
          ))}
          {drawn.nodes.map(n => (
            <rect
              key={n.id}
              x={n.x0}
              y={n.y0}
              width={BAR}
              height={Math.max(2, (n.y1 ?? 0) - (n.y0 ?? 0))}
              fill={n.vessel === 'jars' ? palette.leaf.main : palette.text.secondary}
            />
          ))}
          {drawn.nodes.map(n => {
            const atEnd = (n.x1 ?? 0) > width - BAR * 2;
            const x = atEnd ? n.x1 : n.x0;
            const name = short(placeName(n, process, made), drawn.room);
            const common = {
              x,
              textAnchor: atEnd ? ('end' as const) : ('start' as const),
              paintOrder: 'stroke',
              stroke: palette.background.paper,
              strokeWidth: 4,
              strokeLinejoin: 'round' as const,
            };
            return (
              <g key={n.id}>
                <text
                  {...common}
                  y={(n.y0 ?? 0) - 22}
                  fontSize={NAME_SIZE}
                  fontWeight={700}
                  fill={palette.text.primary}
                >
                  {name}
                </text>
                <text {...common} y={(n.y0 ?? 0) - 6} fontSize={13.5} fill={palette.text.secondary}>
                  {weightIn(kitchen, n.mass_g)}
                </text>
              </g>
            );
          })}
        </svg>
      )}
    </Box>
  );
}

function short(text: string, room: number): string {
  const most = Math.max(6, Math.floor(room / (NAME_SIZE * LETTER)));
  return text.length <= most ? text : `${text.slice(0, most - 1).trimEnd()}…`;
}

function layOut(picture: BalancePicture, width: number) {
  const columns = new Map<number, number>();
  const graph = (height: number) =>
    sankey<PlaceInPicture, Band>()
      .nodeId(n => n.id)
      .nodeAlign(sankeyJustify)
      .nodeWidth(BAR)
      .nodePadding(LABEL + 4)
      .extent([
        [0, LABEL],
        [width, height - 6],
      ])({
      nodes: picture.places.map(p => ({ ...p })),
      links: picture.flows.map(f => ({ source: f.from, target: f.to, value: f.mass_g, kind: f.kind })),
    });
  for (const n of graph(LEAST_HEIGHT * 3).nodes) {
    const at = Math.round(n.x0 ?? 0);
    columns.set(at, (columns.get(at) ?? 0) + 1);
  }
  const fullest = Math.max(1, ...columns.values());
  const height = Math.max(LEAST_HEIGHT, fullest * (LABEL + 34) + 60);
  const { nodes, links } = graph(height);
  return { nodes, links, height, room: width / Math.max(1, columns.size - 1) - BAR * 2 };
}
