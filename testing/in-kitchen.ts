import type { Role } from '@cocotte/core/kitchen';
import type { Clock } from '@cocotte/server/house/clock';
import type { Database } from '@cocotte/server/house/database';
import type { Call } from '@cocotte/server/house/mount';

/** Calls services the way the routes do, as one person in one kitchen, at an instant the caller sets. */
export class InKitchen {
  now_ms: number;
  readonly clock: Clock = { now_ms: () => this.now_ms };

  constructor(
    readonly database: Pick<Database, 'inKitchen'>,
    readonly kitchenId: string,
    public person: { id: string; name: string },
    now_ms: number,
    readonly role: Role = 'owner',
  ) {
    this.now_ms = now_ms;
  }

  run<P, Q, B, R>(
    service: (call: Call<P, Q, B>) => Promise<R>,
    input: { params?: P; query?: Q; body?: B },
  ): Promise<R> {
    return this.database.inKitchen(this.kitchenId, trx =>
      service({
        params: (input.params ?? {}) as P,
        query: (input.query ?? {}) as Q,
        body: (input.body ?? {}) as B,
        person: this.person,
        role: this.role,
        maySign: this.role === 'owner',
        kitchenId: this.kitchenId,
        trx,
        clock: this.clock,
      }),
    );
  }
}
