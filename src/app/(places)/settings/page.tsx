import type { Metadata } from 'next';
import { readShopSettings } from '@/data/settings';
import { SettingsForm } from '@/ui/settings/settings-form';

export const metadata: Metadata = { title: 'Settings' };

export default async function SettingsPage() {
  return <SettingsForm settings={await readShopSettings()} />;
}
