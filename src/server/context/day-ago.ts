const day = 86_400_000;

/** The moment up to which things can be taken back: a day ago. */
export function dayAgo(): string {
  return new Date(Date.now() - day).toISOString();
}
