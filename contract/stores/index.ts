export * from './stores.ts';
export * from './receipts.ts';
export * from './planning.ts';
export * from './taking-in.ts';
