import { answer, bodyOf } from '../http/answer';
import { beginImport, importSchema } from '../desk/import-log';

type Params = { params: Promise<{ id: string }> };

export function POST(request: Request, { params }: Params) {
  return answer(async () => beginImport((await params).id, await bodyOf(request, importSchema)));
}
