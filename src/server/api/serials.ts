import { answer } from '../http/answer';
import { knownSerial } from '../views/known-serial';

/** What is known of a serial: `of` in the address. */
export function GET(request: Request) {
  return answer(async () => knownSerial((new URL(request.url).searchParams.get('of') ?? '').slice(0, 40)));
}
