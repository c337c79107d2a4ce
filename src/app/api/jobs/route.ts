import { answer, bodyOf } from '@/server/http/answer';
import { bookIn, bookInSchema } from '@/server/jobs/book-in';

export function POST(request: Request) {
  return answer(async () => bookIn(await bodyOf(request, bookInSchema)));
}
