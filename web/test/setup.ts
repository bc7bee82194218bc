import { configure } from '@testing-library/react';

/** No test is timed: what a form shows may take its while on a busy machine. */
configure({ asyncUtilTimeout: 60_000 });
