import * as z from 'zod';
import { isTimeZone } from '@/core/wording/shop-time';
import { saveSettings, saveTimeZone, settingsFormSchema } from '../desk/save-settings';
import { answer, bodyOf } from '../http/answer';

export function PUT(request: Request) {
  return answer(async () => saveSettings(await bodyOf(request, settingsFormSchema)));
}

const zoneSchema = z.object({
  timeZone: z.string().max(60).refine(isTimeZone, { error: 'Choose a time zone that is known here' }),
});

/** Sets the time zone alone, as it is asked for at first start. */
export function POST(request: Request) {
  return answer(async () => saveTimeZone((await bodyOf(request, zoneSchema)).timeZone));
}
