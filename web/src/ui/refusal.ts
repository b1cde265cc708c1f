interface Refusal {
  at?: (field: string) => string | undefined;
  problem?: { field?: string | null };
}

/** What a refusal says at a field of the wire. */
export function refusalAt(error: Error | null | undefined, field: string): string | undefined {
  const { at } = (error ?? {}) as Refusal;
  return error && at ? at.call(error, field) : undefined;
}

/** What went wrong at none of these fields: to stand beside the button. */
export function elsewhere(
  error: Error | null | undefined,
  shown: ReadonlySet<string>,
): string | undefined {
  const field = ((error ?? {}) as Refusal).problem?.field;
  return error && !(field && shown.has(field)) ? error.message : undefined;
}
