import { type BatchView, type Moved, readBatch, readEvents, readToday } from '@cocotte/contract';
import { call, keepRepliesBy } from '../shell/call.ts';
import { follow } from './follow.ts';
import { type Held, withPage, withView } from './held.ts';
import { DeviceStore } from './store.ts';

/**
 * The records this device holds: what the server knows of running and recent batches. They lie in IndexedDB and are here
 * before any call is answered; the network only feeds them. One tab follows the kitchen, all tabs see.
 */
export interface RecordsView {
  held: Held;
  /** What there is was read, from this device or from the kitchen. */
  ready: boolean;
  /** The browser keeps nothing: what is held ends with this page. */
  keepsNothing: boolean;
  /** The kitchen answers. */
  reached: boolean;
}

const NEWS = 'cocotte-records';
/** What tabs tell each other, each of the store they share. */
type News =
  | { kind: 'grown'; store: string; batches: string[]; seq: number | null }
  | { kind: 'moved'; store: string; what: Changed[] }
  | { kind: 'reached'; store: string; reached: boolean }
  | { kind: 'look'; store: string };
/** What of a kitchen moved: its record, or what is asked of the server as it is needed. */
export type Changed = keyof Moved;

const COUNTED = ['recipes', 'stock', 'settings'] as const;
/** Asks for what comes after everything: only how far the kitchen has come. */
const NOTHING_AFTER = '999999999999999';
/** After an answer failed it is asked for again. */
const AGAIN_MS = 1500;
/** Batches are read side by side, so many at a time. */
const AT_ONCE = 4;
/** Beyond so many batches those that are finished are let go of, the oldest first. */
const MOST_KEPT = 120;

const NOTHING: RecordsView = { held: new Map(), ready: false, keepsNothing: false, reached: false };
let view = NOTHING;
const listeners = new Set<() => void>();
let current: Following | null = null;

function show(next: Partial<RecordsView>): void {
  view = { ...view, ...next };
  for (const listener of listeners) listener();
}

/** One person's following of one kitchen, from sign-in to leaving. */
class Following {
  readonly name: string;
  private store: DeviceStore | null = null;
  private seq: number | null = null;
  private moved: Moved | null = null;
  private over = false;
  private stopFeed: () => void = () => undefined;
  private looking: Promise<void> | null = null;
  private lookAgain = false;
  private readonly news = 'BroadcastChannel' in globalThis ? new BroadcastChannel(NEWS) : null;

  constructor(
    readonly kitchenId: string,
    readonly personId: string,
    private readonly onChanged: (what: readonly Changed[]) => void,
  ) {
    this.name = `${kitchenId} ${personId}`;
    this.news?.addEventListener('message', ({ data }: MessageEvent<News>) => {
      if (this.over || data.store !== this.name) return;
      if (data.kind === 'grown') void this.readAgain(data.batches, data.seq);
      else if (data.kind === 'moved') this.onChanged(data.what);
      else if (data.kind === 'reached') show({ reached: data.reached });
      else this.feed?.look();
    });
  }

  private opening: Promise<void> = Promise.resolve();
  /** Replies that were given from what is kept: asked for anew once the kitchen answers. */
  private given = 0;
  private feed: { look: () => void } | null = null;

  async begin(): Promise<void> {
    try {
      const opening = DeviceStore.open(this.kitchenId, this.personId);
      this.opening = opening.then(
        () => undefined,
        () => undefined,
      );
      this.store = await opening;
      const { views, seq } = await this.store.readAll();
      if (this.over) return;
      this.seq = seq;
      if (seq !== null) show({ held: new Map(views.map(v => [v.id, v])), ready: true });
      if (views.length > MOST_KEPT) await this.prune(this.store, views);
    } catch {
      show({ keepsNothing: true });
    }
    if (this.over) return;
    const feed = follow({
      kitchenId: this.kitchenId,
      // Without a store that tabs share, each follows by itself.
      lock: this.store ? `cocotte-feed ${this.name}` : null,
      onReach: reached => {
        if (this.over || view.reached === reached) return;
        show({ reached });
        this.tell({ kind: 'reached', store: this.name, reached });
      },
      // Who is here, and in which kitchen, is read anew.
      onDismissed: () => this.onChanged(['settings']),
      onMoved: moved => this.take(moved),
      look: () => this.look(),
    });
    this.feed = feed;
    this.stopFeed = feed.stop;
  }

  /** Lets go of what is long finished: it is read again when somebody opens it, or something is added. */
  private async prune(store: DeviceStore, views: readonly BatchView[]): Promise<void> {
    const { isOpen, summaryOf } = await import('./summaries.ts');
    const closed = views.filter(v => !isOpen(summaryOf(v, [])));
    const gone = closed.sort((a, b) => b.lastSeq - a.lastSeq).slice(MOST_KEPT / 2);
    const ids = new Set(gone.map(v => v.id));
    show({ held: new Map([...view.held].filter(([id]) => !ids.has(id))) });
    await store.drop([...ids]);
  }

  private tell(news: News): void {
    this.news?.postMessage(news);
  }

  /** The kitchen has come so far: what is behind is asked for. */
  private async take(moved: Moved): Promise<void> {
    const before = this.moved;
    this.moved = moved;
    try {
      if (this.seq === null || moved.seq > this.seq) await this.look();
    } catch {
      // Not to be had just now: the stream that told of it may say nothing more for long.
      setTimeout(() => void (this.over || this.take(moved)), AGAIN_MS);
    }
    const what = COUNTED.filter(w => (before ? moved[w] > before[w] : this.given > 0));
    this.given = 0;
    if (what.length === 0) return;
    this.onChanged(what);
    this.tell({ kind: 'moved', store: this.name, what });
  }

  /** Asks the server for what this device has not got; one asking at a time, and once more if something came meanwhile. */
  look(): Promise<void> {
    if (this.looking) {
      this.lookAgain = true;
      return this.looking;
    }
    this.looking = (async () => {
      try {
        do {
          this.lookAgain = false;
          await this.catchUp();
        } while (this.lookAgain && !this.over);
      } finally {
        this.looking = null;
      }
    })();
    return this.looking;
  }

  private async catchUp(): Promise<void> {
    const { kitchenId } = this;
    if (this.seq === null) {
      // A device that knows nothing reads the open batches whole, and goes on from before it read them.
      const { moved } = await call(readEvents, { query: { after: NOTHING_AFTER }, kitchenId });
      const { batches } = await call(readToday, { kitchenId });
      await this.readWhole(batches.map(b => b.id));
      await this.reach([], moved.seq);
      show({ ready: true });
    }
    for (;;) {
      const page = await call(readEvents, { query: { after: String(this.seq) }, kitchenId });
      if (this.over) return;
      const { held, grown, unread } = withPage(view.held, page);
      const last = page.events.at(-1);
      if (grown.length > 0) show({ held });
      await this.readWhole(unread);
      // How far is said last: what was not read whole is come upon again.
      if (last) await this.reach(grown, last.receipt.seq);
      if (!page.more) {
        if (last) this.onChanged(['seq']);
        return;
      }
    }
  }

  /** Reads batches that are not held. */
  private async readWhole(ids: readonly string[]): Promise<void> {
    const waiting = [...ids];
    const some = async () => {
      for (let id = waiting.pop(); id !== undefined; id = waiting.pop())
        await this.hold(await call(readBatch, { params: { batchId: id }, kitchenId: this.kitchenId }));
    };
    await Promise.all(Array.from({ length: AT_ONCE }, some));
  }

  /** Holds a batch as the server told it. */
  async hold(batch: BatchView): Promise<void> {
    if (this.over) return;
    show({ held: withView(view.held, batch) });
    await this.reach([batch.id], null);
  }

  private async reach(batchIds: readonly string[], seq: number | null): Promise<void> {
    if (this.over) return;
    if (seq !== null) this.seq = Math.max(seq, this.seq ?? 0);
    const views = batchIds.flatMap(id => view.held.get(id) ?? []);
    try {
      await this.store?.keep(views, seq);
      this.tell({ kind: 'grown', store: this.name, batches: [...batchIds], seq });
    } catch {
      // The disk is full, or another tab erased it: what is held lasts as long as the page.
      if (!this.over) show({ keepsNothing: true });
    }
  }

  /** Another tab kept something newer. */
  private async readAgain(batchIds: readonly string[], seq: number | null): Promise<void> {
    for (const id of batchIds) {
      const kept = await this.store?.read(id).catch(() => null);
      if (kept && !this.over) show({ held: withView(view.held, kept) });
    }
    if (this.over || seq === null) return;
    this.seq = Math.max(seq, this.seq ?? 0);
    show({ ready: true });
    this.onChanged(['seq']);
  }

  keepReply(address: string, reply: unknown): void {
    if (this.over || !address.includes(this.kitchenId)) return;
    this.store?.keepReply(address, reply, Date.now()).catch(() => undefined);
  }

  async readReply(address: string): Promise<unknown> {
    await this.opening;
    if (this.over || !address.includes(this.kitchenId)) return undefined;
    const reply = await this.store?.readReply(address).catch(() => undefined);
    if (reply !== undefined) this.given += 1;
    return reply;
  }

  /** Looks here if this tab follows the kitchen, else has the tab look that does. */
  nudge(): void {
    this.feed?.look();
    this.tell({ kind: 'look', store: this.name });
  }

  end(): void {
    this.over = true;
    this.stopFeed();
    this.news?.close();
    this.store?.close();
  }
}

/** What can be read without the kitchen, as it was last seen: recipes, stock, the shopping list. */
const KEPT_REPLIES = new Set([
  'recipes.list',
  'recipes.shelves',
  'recipes.read',
  'recipes.versions',
  'recipes.version',
  'recipes.history',
  'recipes.tastings',
  'ingredients.list',
  'stores.items',
  'stores.stock',
  'stores.shelf',
  'stores.lots',
  'stores.lot',
  'plans.list',
  'plans.shopping',
  'batches.list',
  'costs.batch',
  'costs.recipe',
  'people.list',
]);
keepRepliesBy({
  keeps: name => KEPT_REPLIES.has(name),
  put: (address, reply) => current?.keepReply(address, reply),
  get: async address => current?.readReply(address),
});

export const records = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  },

  view: (): RecordsView => view,

  /**
   * Follows a kitchen for a person, instead of whatever was followed.
   *
   * @param onChanged  is told what moved, in whichever tab it was learned
   * @returns ends it
   */
  open(kitchenId: string, personId: string, onChanged: (what: readonly Changed[]) => void): () => void {
    current?.end();
    const mine = new Following(kitchenId, personId, onChanged);
    current = mine;
    show(NOTHING);
    void mine.begin();
    return () => {
      mine.end();
      if (current === mine) {
        current = null;
        show(NOTHING);
      }
    };
  },

  /** Lets go of whatever is followed: what comes late is not kept. */
  close(): void {
    current?.end();
    current = null;
    show(NOTHING);
  },

  /** Holds a batch that the server just told of. */
  hold: async (batch: BatchView): Promise<void> => current?.hold(batch),

  /** Asks for what is new now, instead of when the feed says so. */
  look: (): void => current?.nudge(),
};
