import { answer, bodyOf } from '../http/answer';
import { knownMapping, knownMappingSchema } from '../views/known-mapping';

/** How a log with these headers was understood last. A header line may be long, so it comes in the body. */
export function POST(request: Request) {
  return answer(async () => knownMapping(await bodyOf(request, knownMappingSchema)));
}
