export interface Selected<Id> {
  readonly ids: readonly Id[];
  readonly anchor: Id | null;
}

interface Keys {
  readonly shiftKey: boolean;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
}

/** What a click selects, with the habits of a file manager: alone, with Shift from the anchor to here, with Ctrl or Cmd added or taken away. */
export function selectionAfterClick<Id>(
  order: readonly Id[],
  before: ReadonlySet<Id>,
  anchor: Id | null,
  clicked: Id,
  keys: Keys,
): Selected<Id> {
  const toggles = keys.ctrlKey || keys.metaKey;
  if (keys.shiftKey && anchor !== null && order.includes(anchor)) {
    const range = between(order, anchor, clicked);
    return { ids: toggles ? order.filter((id) => before.has(id) || range.includes(id)) : range, anchor };
  }
  if (toggles) {
    const ids = before.has(clicked)
      ? order.filter((id) => before.has(id) && id !== clicked)
      : order.filter((id) => before.has(id) || id === clicked);
    return { ids, anchor: clicked };
  }
  return { ids: [clicked], anchor: clicked };
}

/** What an arrow key selects: the neighbour of `focus`, or with Shift everything from the anchor to it. */
export function selectionAfterStep<Id>(
  order: readonly Id[],
  anchor: Id | null,
  focus: Id | null,
  step: number,
  stretch: boolean,
): (Selected<Id> & { readonly focus: Id }) | null {
  if (order.length === 0) return null;
  const from = focus === null ? (step > 0 ? -1 : order.length) : order.indexOf(focus);
  const next = order[Math.min(order.length - 1, Math.max(0, from + step))]!;
  if (stretch && anchor !== null && order.includes(anchor))
    return { ids: between(order, anchor, next), anchor, focus: next };
  return { ids: [next], anchor: next, focus: next };
}

function between<Id>(order: readonly Id[], one: Id, other: Id): Id[] {
  const [from, to] = [order.indexOf(one), order.indexOf(other)].sort((a, b) => a - b) as [number, number];
  return order.slice(from, to + 1);
}
