import { savePeople, peopleSchema } from '../desk/save-people';
import { answer, bodyOf } from '../http/answer';

export function PUT(request: Request) {
  return answer(async () => savePeople(await bodyOf(request, peopleSchema)));
}
