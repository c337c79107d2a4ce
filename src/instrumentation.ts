/** Takes the data folder for this server alone, and evaluates the jobs of the day once, so that the first look does not wait for it. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { FolderTaken, takeFolder } = await import('./data/one-server');
  try {
    await takeFolder();
  } catch (error) {
    if (!(error instanceof FolderTaken)) throw error;
    console.error(error.message);
    process.exit(1);
  }
  const { floorView } = await import('./server/jobs/job-view');
  void floorView().catch(() => undefined);
}
