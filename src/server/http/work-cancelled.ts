/** Nobody waits for this work any more. */
export class WorkCancelled extends Error {}
