/** Rows by what they have in common, in the order in which each first comes; no group is empty. */
export function grouped<T>(rows: readonly T[], key: (row: T) => string): [T, ...T[]][] {
  const groups = new Map<string, [T, ...T[]]>();
  for (const row of rows) {
    const group = groups.get(key(row));
    if (group) group.push(row);
    else groups.set(key(row), [row]);
  }
  return [...groups.values()];
}
