import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { Providers } from '@/ui/shell/providers';

// Every page shows the shop as it is now.
export const dynamic = 'force-dynamic';

export default async function Layout({ children }: LayoutProps<'/'>) {
  const { people, settings, zone, today } = await shopOfPage();
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="data-mode" defaultMode="light" />
        {/* In a layer of its own: what a page lays out wins over what the theme dresses. */}
        <AppRouterCacheProvider options={{ enableCssLayer: true }}>
          <Providers shopName={settings.shopName} people={people} zone={zone} today={today}>
            {children}
          </Providers>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
