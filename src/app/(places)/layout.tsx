import { Frame } from '@/ui/shell/frame';

export default function PlacesLayout({ children }: LayoutProps<'/'>) {
  return <Frame>{children}</Frame>;
}
