import { answer, bodyOf } from '@/server/http/answer';
import { orderSchema, orderSheet } from '@/server/jobs/order-sheet';

type Params = { params: Promise<{ id: string }> };

export function PUT(request: Request, { params }: Params) {
  return answer(async () => orderSheet((await params).id, await bodyOf(request, orderSchema)));
}
