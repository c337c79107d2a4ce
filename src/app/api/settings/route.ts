import { answer, bodyOf } from '@/server/http/answer';
import { saveSettings, settingsFormSchema } from '@/server/save-settings';

export function PUT(request: Request) {
  return answer(async () => saveSettings(await bodyOf(request, settingsFormSchema)));
}
