/** As much of an OpenAPI document as a reader needs. */
export interface Shape {
  readonly $ref?: string;
  readonly type?: string | readonly string[];
  readonly format?: string;
  readonly enum?: readonly unknown[];
  readonly items?: Shape;
  readonly properties?: Readonly<Record<string, Shape>>;
  readonly additionalProperties?: Shape | boolean;
  readonly required?: readonly string[];
  readonly minimum?: number;
  readonly maximum?: number;
  readonly maxLength?: number;
}
interface Content {
  readonly content?: Readonly<Record<string, { readonly schema?: Shape }>>;
}
export interface Operation {
  readonly summary?: string;
  readonly parameters?: readonly {
    readonly name: string;
    readonly in: string;
    readonly required?: boolean;
    readonly schema?: Shape;
  }[];
  readonly requestBody?: Content;
  readonly responses?: Readonly<Record<string, Content>>;
}
export interface ApiDocument {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components?: { readonly schemas?: Readonly<Record<string, Shape>> };
}
export interface Request {
  readonly method: string;
  readonly path: string;
  readonly operation: Operation;
}

/** Every request, in groups by the first part of its address. */
export function grouped(document: ApiDocument): { name: string; requests: Request[] }[] {
  const groups = new Map<string, Request[]>();
  for (const [path, operations] of Object.entries(document.paths)) {
    const name = path.split('/')[2] ?? '';
    for (const [method, operation] of Object.entries(operations)) {
      groups.set(name, [...(groups.get(name) ?? []), { method: method.toUpperCase(), path, operation }]);
    }
  }
  return [...groups].map(([name, requests]) => ({ name: name.replaceAll('-', ' '), requests }));
}

/** Whether every word stands somewhere in what is said of a request. */
export function isAbout({ method, path, operation }: Request, words: string): boolean {
  const text = `${method} ${path} ${operation.summary ?? ''}`.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

const nameOf = (ref: string) => ref.slice(ref.lastIndexOf('/') + 1);

/** What a value is, in a line: its type, its bounds, its words. */
export function typeWords(shape: Shape | undefined): string {
  if (!shape) return 'anything';
  if (shape.$ref) return nameOf(shape.$ref);
  if (shape.enum) return shape.enum.map(String).join(' | ');
  if (shape.items) return `list of ${typeWords(shape.items)}`;
  if (typeof shape.additionalProperties === 'object') return `map to ${typeWords(shape.additionalProperties)}`;
  const types = [shape.type ?? 'anything'].flat().filter((t) => t !== 'null');
  const type = types
    .map((t) => (shape.format === 'date-time' ? 'moment' : shape.format === 'date' ? 'day' : t))
    .join(' or ');
  if (shape.maxLength !== undefined) return `${type}, to ${shape.maxLength} characters`;
  if (shape.minimum !== undefined && shape.maximum !== undefined)
    return `${type}, ${shape.minimum} to ${shape.maximum}`;
  if (shape.minimum !== undefined) return `${type}, from ${shape.minimum}`;
  if (shape.maximum !== undefined) return `${type}, to ${shape.maximum}`;
  return type;
}

export interface Named {
  readonly name: string;
  readonly shape: Shape;
}

/** The shapes with a name that something is made of, itself first, each once. */
export function partsOf(document: ApiDocument, shape: Shape | undefined): Named[] {
  const found = new Map<string, Shape>();
  const look = (one: Shape | undefined): void => {
    if (!one) return;
    if (one.$ref) {
      const name = nameOf(one.$ref);
      const named = document.components?.schemas?.[name];
      if (!named || found.has(name)) return;
      found.set(name, named);
      look(named);
    }
    look(one.items);
    if (typeof one.additionalProperties === 'object') look(one.additionalProperties);
    Object.values(one.properties ?? {}).forEach(look);
  };
  look(shape);
  return [...found].map(([name, named]) => ({ name, shape: named }));
}

/** What is sent or answered as JSON; nothing where it is something else. */
export function jsonOf(content: Content | undefined): Shape | undefined {
  return content?.content?.['application/json']?.schema;
}

/** Kinds of content that are sent or answered. */
export function kindsOf(content: Content | undefined): string[] {
  return Object.keys(content?.content ?? {});
}
