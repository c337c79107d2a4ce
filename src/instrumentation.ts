/** Evaluates the jobs of the day once at the start, so that the first look at the floor does not wait for it. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { floorView } = await import('./server/jobs/job-view');
  void floorView().catch(() => undefined);
}
