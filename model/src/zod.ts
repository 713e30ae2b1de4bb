import * as z from 'zod';

// Compiled parsers would need `unsafe-eval` in the content security policy; set before any schema is built.
z.config({ jitless: true });

export { z };
