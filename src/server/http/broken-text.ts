/** What a person can do about a failure that is none of theirs. */
export function brokenText(error: unknown): string {
  const code = (error as { code?: unknown } | null)?.code;
  switch (code) {
    case 'SQLITE_FULL':
    case 'ENOSPC':
      return 'Nothing was changed: the disk is full. Make room and try again.';
    case 'SQLITE_READONLY':
    case 'EACCES':
    case 'EROFS':
      return 'Nothing was changed: the data folder cannot be written to.';
    case 'SQLITE_BUSY':
    case 'SQLITE_LOCKED':
      return 'Nothing was changed: something else holds the data. Try again in a moment.';
    case 'SQLITE_CORRUPT':
    case 'SQLITE_NOTADB':
      return 'Nothing was changed: the data file is damaged. Bring back a copy.';
    default:
      return 'The server ran into a fault; its log says which. Load the page again to see what was kept.';
  }
}
