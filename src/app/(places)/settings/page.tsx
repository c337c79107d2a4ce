import { settingsNow } from '@/server/shop';
import { SettingsForm } from '@/ui/settings/settings-form';
import { PageTitle } from '@/ui/shell/page-title';

export default async function SettingsPage() {
  return (
    <>
      <PageTitle of="Settings" />
      <SettingsForm settings={await settingsNow()} />
    </>
  );
}
