/** The demo kitchen's sign-in: shown and accepted on this machine only. */
export const DEMO_SIGN_IN = { email: 'wren@wrenfold.example', password: 'wrenfold-demo-kitchen' } as const;
