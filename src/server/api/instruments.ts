import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import { instrumentFormSchema, mountInstrument, putBackInstrument, unmountInstrument } from '../shop/instruments';

export function PUT(request: Request) {
  return answer(async () => mountInstrument(await bodyOf(request, instrumentFormSchema)));
}

export function DELETE(request: Request) {
  return answer(async () =>
    unmountInstrument((await bodyOf(request, z.object({ channel: z.string().max(80) }))).channel),
  );
}

/** Puts back what was taken off. */
export function POST(request: Request) {
  return answer(async () =>
    putBackInstrument((await bodyOf(request, z.object({ takenOff: z.number().int() }))).takenOff),
  );
}
