/** A value of JSON. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [name: string]: Json | undefined };

/**
 * What a JSON merge patch makes of a value (RFC 7396): members are put in or replaced, null takes one out, and anything
 * that is no object is replaced whole. Neither of the two is changed.
 */
export function mergePatch(value: unknown, patch: Json): unknown {
  if (!isObject(patch)) return patch;
  const merged: Record<string, unknown> = isObject(value) ? { ...value } : {};
  for (const [name, change] of Object.entries(patch)) {
    if (change === null) delete merged[name];
    else merged[name] = mergePatch(merged[name], change as Json);
  }
  return merged;
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
