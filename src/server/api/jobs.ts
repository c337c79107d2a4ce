import { answer, bodyOf } from '../http/answer';
import { bookIn, bookInSchema } from '../desk/book-in';

export function POST(request: Request) {
  return answer(async () => bookIn(await bodyOf(request, bookInSchema)));
}
