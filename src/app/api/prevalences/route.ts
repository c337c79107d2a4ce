import { prevalenceSchema, savePrevalences } from '@/server/diagnosis/prevalences';
import { answer, bodyOf } from '@/server/http/answer';

export function PUT(request: Request) {
  return answer(async () => savePrevalences(await bodyOf(request, prevalenceSchema)));
}
