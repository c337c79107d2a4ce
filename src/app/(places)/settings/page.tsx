import { versionOfKey } from '@/server/shop/change-shop';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { SettingsForm } from '@/ui/settings/settings-form';
import { ShownVersion } from '@/ui/shell/shown-version';
import { PageTitle } from '@/ui/shell/page-title';

export default async function SettingsPage() {
  const [{ settings, zone, broken }, version] = await Promise.all([shopOfPage(), versionOfKey('settings')]);
  return (
    <>
      <PageTitle of="Settings" />
      <ShownVersion version={version} />
      <SettingsForm settings={settings} zone={zone} broken={broken.includes('settings')} />
    </>
  );
}
