import { answer } from '@/server/http/answer';
import { largestPart } from '@/server/http/door';
import { RequestRefused } from '@/server/http/refused';
import { closeImport, takeImportPart } from '@/server/runs/import-log';

type Params = { params: Promise<{ id: string }> };

/** One part of a log: `sequence` and `channels` in the address, the samples as bytes. */
export function PUT(request: Request, { params }: Params) {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const sequence = Number(query.get('sequence'));
    const channels = (query.get('channels') ?? '').split(',').filter(Boolean);
    if (!Number.isInteger(sequence) || sequence < 0) throw new RequestRefused(422, 'Which part is this?');
    const bytes = await request.arrayBuffer();
    if (bytes.byteLength > largestPart) throw new RequestRefused(413, 'This part of the log is too large.');
    await takeImportPart((await params).id, { sequence, channels, bytes });
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
