import { shopTime, type TimeForm } from '@/core/wording/shop-time';
import { useShop } from '@/ui/shell/shop-context';

/** Puts moments in words by the shop's clock, the same on the server and on every screen. */
export function useWhen(): (iso: string, form: TimeForm) => string {
  const { zone, today } = useShop();
  return (iso, form) => shopTime(iso, form, { zone, today });
}
