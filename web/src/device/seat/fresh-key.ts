/** A key that nobody else makes. Some browsers have no `randomUUID`; random numbers they all have. */
export function freshKey(from: Pick<Crypto, 'getRandomValues'> & { randomUUID?: () => string } = crypto): string {
  if (from.randomUUID) return from.randomUUID();
  const bytes = from.getRandomValues(new Uint8Array(16));
  // The form of a random UUID (RFC 9562, version 4).
  bytes[6] = (bytes[6]! & 0x0f) | 0x40;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}
