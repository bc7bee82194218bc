import { byName } from '../measure/index.ts';
import { upgradeRecipe } from '../recipes/index.ts';
import { type FileFault, fileFault } from './reading.ts';

import { type Node, type ParseError, findNodeAtLocation, parseTree, printParseErrorCode } from 'jsonc-parser';

/** Line numbers of offsets, counted once. */
function lineCounter(text: string): (offset: number) => number {
  const starts = [0];
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
  return offset => {
    let low = 0;
    let high = starts.length - 1;
    while (low < high) {
      const mid = (low + high + 1) >> 1;
      if ((starts[mid] as number) <= offset) low = mid;
      else high = mid - 1;
    }
    return low + 1;
  };
}

/** Parses JSON with the place of every value, or says on which line it breaks. */
export function readTree(
  text: string,
): { ok: true; root: Node; lineAt: (offset: number) => number } | { ok: false; faults: FileFault[] } {
  const lineAt = lineCounter(text);
  const errors: ParseError[] = [];
  const root = parseTree(text, errors, { disallowComments: true });
  const first = errors[0];
  if (first || !root)
    return {
      ok: false,
      faults: [
        fileFault(
          lineAt(first?.offset ?? 0),
          '',
          'not-json',
          `The file is not sound JSON: ${words(first ? printParseErrorCode(first.error) : 'it is empty')}.`,
          'Nothing can be taken from a file that is broken half-way.',
          'Export it again, or mend it at this line.',
        ),
      ],
    };
  return { ok: true, root, lineAt };
}

const words = (code: string) => code.replaceAll(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();
/** "lines[1].amount" as the steps of a path. */
export const pathOf = (path: string) =>
  path
    .replaceAll(/\[(\d+)\]/g, '.$1')
    .split('.')
    .filter(Boolean)
    .map(p => (/^\d+$/.test(p) ? Number(p) : p));

/** Value of a node; built from the tree, so that a file is parsed once. */
export function valueOf(node: Node): unknown {
  if (node.type === 'array') return (node.children ?? []).map(valueOf);
  if (node.type === 'object')
    return byName(
      (node.children ?? []).flatMap(p =>
        p.children?.[1] ? [[String(p.children[0]?.value), valueOf(p.children[1])] as const] : [],
      ),
    );
  return node.value;
}

/** An older shape is brought up to date; whatever is no recipe at all is left for the rules to refuse. */
export function upgraded(value: unknown): unknown {
  try {
    return value !== null && typeof value === 'object' && 'lines' in value ? upgradeRecipe(value) : value;
  } catch {
    return value;
  }
}

/** The node at a path, or the nearest one above it that is there. */
export function nearest(node: Node, path: (string | number)[]): Node {
  for (let length = path.length; length > 0; length--) {
    const found = findNodeAtLocation(node, path.slice(0, length));
    if (found) return found;
  }
  return node;
}
