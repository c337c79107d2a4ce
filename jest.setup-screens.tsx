import '@testing-library/jest-dom';
import { configure } from '@testing-library/react';
import { push, refresh } from './tests/support/router';

// A busy machine may take its time to show something.
configure({ asyncUtilTimeout: 15_000 });

jest.mock('next/navigation', () => ({
  useRouter: () => jest.requireActual<object>('./tests/support/router'),
  usePathname: () => '/',
}));
// A canvas says nothing in jsdom; the pictures' options are tested by themselves.
jest.mock('./src/ui/charts/chart', () => ({
  Chart: ({ text }: { text: string }) => <div role="img" aria-label={text} />,
}));

beforeEach(() => {
  window.localStorage.clear();
  push.mockClear();
  refresh.mockClear();
});
