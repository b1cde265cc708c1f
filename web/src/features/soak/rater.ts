const RATER = "kessik.inspected-by";

/** Who inspected last on this device: mostly whoever inspects now. */
export const lastRater = () => localStorage.getItem(RATER) ?? "";

export const rememberRater = (name: string) => localStorage.setItem(RATER, name);
