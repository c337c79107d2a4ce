import { answer, bodyOf } from '../http/answer';
import { orderSchema, orderSheet } from '../desk/order-sheet';

type Params = { params: Promise<{ id: string }> };

export function PUT(request: Request, { params }: Params) {
  return answer(async () => orderSheet((await params).id, await bodyOf(request, orderSchema)));
}
