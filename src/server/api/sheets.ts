import { answer, bodyOf } from '../http/answer';
import { addSheet, newSheetSchema } from '../desk/book-in';

export function POST(request: Request) {
  return answer(async () => addSheet(await bodyOf(request, newSheetSchema)));
}
