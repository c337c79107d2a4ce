import { answer, bodyOf } from '../http/answer';
import { correctBooking, correctSchema } from '../desk/correct-booking';

type Params = { params: Promise<{ id: string }> };

/** Corrects what was booked. */
export function PUT(request: Request, { params }: Params) {
  return answer(async () => correctBooking((await params).id, await bodyOf(request, correctSchema)));
}
