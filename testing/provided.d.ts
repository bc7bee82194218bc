import 'vitest';

declare module 'vitest' {
  interface ProvidedContext {
    adminUrl: string;
    ownerUrl: string;
    appUrl: string;
    template: string;
  }
}
