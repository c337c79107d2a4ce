// What lies around heavy work is tested without its threads; the threads have a test of their own.
process.env.HARD_PEDAL_THREADS ??= '0';
