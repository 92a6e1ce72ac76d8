interface Node {
  id: number;
  parentId?: number | undefined;
}

/** Parents before their children, each child right under its parent, with how deep it lies. Whatever has no parent here is a root. */
export function inTree<T extends Node>(items: readonly T[]): { item: T; depth: number }[] {
  const known = new Set(items.map((i) => i.id));
  const rows: { item: T; depth: number }[] = [];
  const add = (parent: number | undefined, depth: number) => {
    for (const item of items) {
      const above = item.parentId !== undefined && known.has(item.parentId) ? item.parentId : undefined;
      if (above === parent && !rows.some((r) => r.item.id === item.id)) {
        rows.push({ item, depth: Math.min(depth, 8) });
        add(item.id, depth + 1);
      }
    }
  };
  add(undefined, 0);
  return rows;
}
