import { answer, bodyOf } from '@/server/http/answer';
import { addSheet, newSheetSchema } from '@/server/jobs/book-in';

export function POST(request: Request) {
  return answer(async () => addSheet(await bodyOf(request, newSheetSchema)));
}
