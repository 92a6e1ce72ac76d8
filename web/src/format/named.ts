/** What tells one configuration from all others on the shelf. */
export interface Called {
  readonly maker: string;
  readonly model: string;
  readonly name: string;
}

/** A configuration by its whole name. */
export function named(c: Called): string {
  return `${c.maker} ${c.model}, ${c.name}`;
}

/** A configuration by its model, and by its own name too where another of the same model is shown beside it. */
export function toldApart(c: Called, among: readonly Called[]): string {
  return among.filter((o) => o.maker === c.maker && o.model === c.model).length > 1
    ? named(c)
    : `${c.maker} ${c.model}`;
}
