import * as z from 'zod';
import { answer, bodyOf } from '../http/answer';
import {
  checkSphere,
  enterSphere,
  fitSphere,
  sphereCheckSchema,
  sphereFitSchema,
  sphereFormSchema,
} from '../shop/spheres';

const bodySchema = z.discriminatedUnion('action', [
  sphereFormSchema.extend({ action: z.literal('enter') }),
  sphereCheckSchema.extend({ action: z.literal('check') }),
  sphereFitSchema.extend({ action: z.literal('fit') }),
]);

export function POST(request: Request) {
  return answer(async () => {
    const body = await bodyOf(request, bodySchema);
    switch (body.action) {
      case 'enter':
        return enterSphere(body);
      case 'check':
        return checkSphere(body);
      case 'fit':
        return fitSphere(body);
    }
  });
}
