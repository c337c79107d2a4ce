import { prevalenceSchema, savePrevalence } from '../shop/prevalences';
import { answer, bodyOf } from '../http/answer';

export function PUT(request: Request) {
  return answer(async () => savePrevalence(await bodyOf(request, prevalenceSchema)));
}
