import { prevalenceSchema, savePrevalence } from '@/server/diagnosis/prevalences';
import { answer, bodyOf } from '@/server/http/answer';

export function PUT(request: Request) {
  return answer(async () => savePrevalence(await bodyOf(request, prevalenceSchema)));
}
