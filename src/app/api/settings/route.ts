import { shopSettingsSchema, writeShopSettings } from '@/data/settings';
import { answer, bodyOf } from '@/server/http/answer';

export function PUT(request: Request) {
  return answer(async () => writeShopSettings(await bodyOf(request, shopSettingsSchema)));
}
