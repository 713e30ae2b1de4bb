import { config } from 'zod';

// Compiled parsers would need `unsafe-eval` in the content security policy; set before any schema is built. Whoever
// builds schemas imports this first, and then all of zod by its own name: a namespace that is passed on would bring
// every locale with it.
config({ jitless: true });
