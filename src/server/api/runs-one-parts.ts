import { answer } from '../http/answer';
import { largestPart } from '../http/door';
import { RequestRefused } from '../http/refused';
import { closeImport, takeImportPart } from '../desk/import-log';

type Params = { params: Promise<{ id: string }> };

/** One part of a log: `sequence` in the address, the samples as a frame. */
export function PUT(request: Request, { params }: Params) {
  return answer(async () => {
    const sequence = Number(new URL(request.url).searchParams.get('sequence'));
    if (!Number.isInteger(sequence) || sequence < 0) throw new RequestRefused(422, 'Which part is this?');
    const bytes = await request.arrayBuffer();
    if (bytes.byteLength > largestPart) throw new RequestRefused(413, 'This part of the log is too large.');
    await takeImportPart((await params).id, { sequence, bytes: new Uint8Array(bytes) });
    return {};
  });
}

/** All parts have been sent. */
export function POST(_request: Request, { params }: Params) {
  return answer(async () => {
    await closeImport((await params).id);
    return {};
  });
}
