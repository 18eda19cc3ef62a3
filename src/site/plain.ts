// Maps and sets as plain JSON, and back: what one process found, for another one.

export function toPlain(found: unknown): string {
  return JSON.stringify(found, (_, value) =>
    value instanceof Map ? { '#map': [...value] } : value instanceof Set ? { '#set': [...value] } : value,
  );
}

export function fromPlain(text: string): unknown {
  return JSON.parse(text, (_, value) =>
    Array.isArray(value?.['#map'])
      ? new Map(value['#map'])
      : Array.isArray(value?.['#set'])
        ? new Set(value['#set'])
        : value,
  );
}
