'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useState, useSyncExternalStore } from 'react';
import { send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';

const never = () => () => undefined;
const zoneHere = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Asks once by which time zone the shop's days begin, and offers this browser's. */
export function AskZone() {
  const router = useRouter();
  const { zone } = useShop();
  const here = useSyncExternalStore(never, zoneHere, () => zone);
  const [trouble, setTrouble] = useState('');
  const take = async () => {
    try {
      await send('/api/settings', { timeZone: here });
      router.refresh();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Alert
      severity="info"
      action={
        <>
          <Button color="inherit" size="small" onClick={() => void take()}>
            Use {here.replaceAll('_', ' ')}
          </Button>
          <Button color="inherit" size="small" onClick={() => router.push('/settings')}>
            Choose another
          </Button>
        </>
      }
    >
      By which time zone do this workshop’s days begin? Until it is said, the server’s own is taken (
      {zone.replaceAll('_', ' ')}).{trouble && ` ${trouble}`}
    </Alert>
  );
}
