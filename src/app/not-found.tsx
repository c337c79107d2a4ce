import { Frame } from '@/ui/shell/frame';
import { NothingHere } from '@/ui/shell/nothing-here';

export default function NotFound() {
  return (
    <Frame>
      <NothingHere />
    </Frame>
  );
}
