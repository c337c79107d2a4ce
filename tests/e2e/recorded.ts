import type { APIRequestContext } from '@playwright/test';
import { FrameReader } from '../../src/core/traces/frame';
import { concatTraces, type Trace } from '../../src/core/traces/trace';

/** What a run has recorded, as the server tells a screen that comes to it. */
export async function recorded(request: APIRequestContext, id: string, base = ''): Promise<Trace> {
  const frames = new FrameReader().push(await (await request.get(`${base}/api/runs/${id}/stream`)).body());
  return concatTraces((frames ?? []).map((frame) => frame.samples));
}
