import { configure } from '@testing-library/react';

// A busy machine may take its time to show something.
configure({ asyncUtilTimeout: 15_000 });
