import { type ComponentType, Suspense, lazy, useEffect } from 'react';
import { Navigate, Route, Routes } from 'react-router';
import { CallError } from './shell/call.ts';
import { Away } from './shell/Away.tsx';
import { eraseKept } from './device/index.ts';
import { outbox } from './outbox/index.ts';
import { forgetHere, tellOthers } from './shell/here-kept.ts';
import { kitchenOfTab, useSession } from './shell/session.tsx';
import { Waiting } from './kit/Loaded.tsx';
import { Shell } from './shell/Shell.tsx';

// Whoever is signed in does not fetch the door.
const Door = lazy(async () => ({ default: (await import('./kitchen/Door.tsx')).Door }));

/** A view that loads when it is opened. */
const view = <N extends string>(load: () => Promise<Record<N, ComponentType>>, name: N) =>
  lazy(async () => ({ default: (await load())[name] }));

const TodayPage = view(() => import('./batches/TodayPage.tsx'), 'TodayPage');
const RecipeBook = view(() => import('./recipes/book/RecipeBook.tsx'), 'RecipeBook');
const RecipeSheet = view(() => import('./recipes/sheet/RecipeSheet.tsx'), 'RecipeSheet');
const RecipeEditor = view(() => import('./recipes/editor/RecipeEditor.tsx'), 'RecipeEditor');
const PastePage = view(() => import('./recipes/book/PastePage.tsx'), 'PastePage');
const BeginPage = view(() => import('./recipes/book/BeginPage.tsx'), 'BeginPage');
const ExchangePage = view(() => import('./recipes/book/ExchangePage.tsx'), 'ExchangePage');
const IngredientsPage = view(() => import('./recipes/book/IngredientsPage.tsx'), 'IngredientsPage');
const DifferencePage = view(() => import('./recipes/book/DifferencePage.tsx'), 'DifferencePage');
const VariantsPage = view(() => import('./recipes/book/VariantsPage.tsx'), 'VariantsPage');
const ShelfPage = view(() => import('./stores/shelf/ShelfPage.tsx'), 'ShelfPage');
const ItemPage = view(() => import('./stores/shelf/ItemPage.tsx'), 'ItemPage');
const LotPage = view(() => import('./stores/shelf/LotPage.tsx'), 'LotPage');
const ReceiptList = view(() => import('./stores/receipts/ReceiptPages.tsx'), 'ReceiptList');
const ReceiptPage = view(() => import('./stores/receipts/ReceiptPages.tsx'), 'ReceiptPage');
const ReceiptEntry = view(() => import('./stores/receipts/ReceiptEntry.tsx'), 'ReceiptEntry');
const ImportPage = view(() => import('./stores/receipts/ImportPage.tsx'), 'ImportPage');
const ShoppingPage = view(() => import('./stores/planning/ShoppingPage.tsx'), 'ShoppingPage');
const OfferPage = view(() => import('./stores/planning/OfferPage.tsx'), 'OfferPage');
const RecipeCostPage = view(() => import('./stores/costs/RecipeCostPage.tsx'), 'RecipeCostPage');
const BatchCostPage = view(() => import('./stores/costs/BatchCostPage.tsx'), 'BatchCostPage');
const CookList = view(() => import('./batches/CookList.tsx'), 'CookList');
const CookPage = view(() => import('./batches/CookPage.tsx'), 'CookPage');
const WriteUpPage = view(() => import('./batches/write-up/WriteUpPage.tsx'), 'WriteUpPage');
const RehearsalPage = view(() => import('./batches/rehearsal/RehearsalPage.tsx'), 'RehearsalPage');
const CheckList = view(() => import('./checks/CheckList.tsx'), 'CheckList');
const CheckPage = view(() => import('./checks/CheckPage.tsx'), 'CheckPage');
const CheckedPage = view(() => import('./checks/CheckedPage.tsx'), 'CheckedPage');
const DeviationsPage = view(() => import('./checks/DeviationsPage.tsx'), 'DeviationsPage');
const LabelList = view(() => import('./labels/LabelList.tsx'), 'LabelList');
const LabelPage = view(() => import('./labels/LabelPage.tsx'), 'LabelPage');
const RecordList = view(() => import('./records/RecordList.tsx'), 'RecordList');
const RecordPage = view(() => import('./records/RecordPage.tsx'), 'RecordPage');
const KitchenPage = view(() => import('./kitchen/KitchenPage.tsx'), 'KitchenPage');
const InstrumentsPage = view(() => import('./kitchen/InstrumentsPage.tsx'), 'InstrumentsPage');
const AccountPage = view(() => import('./kitchen/AccountPage.tsx'), 'AccountPage');
const PeoplePage = view(() => import('./kitchen/PeoplePage.tsx'), 'PeoplePage');

/** Whoever signs out leaves nothing of the kitchen on this device. */
async function forgetAll(): Promise<void> {
  forgetHere();
  await eraseKept();
  tellOthers();
}

/** Which view stands at which address. Outside a kitchen there is only the door. */
export function App() {
  const { data: session, error, refetch } = useSession();
  const nobody = session?.person === null;
  // What was entered here and has not arrived is delivered by the device's grants, while nobody is signed in too.
  useEffect(() => void (nobody && outbox.open([], () => undefined)), [nobody]);
  if (error && !session)
    return <Away error={error instanceof CallError ? error : null} onRetry={() => void refetch()} />;
  if (!session) return <Waiting />;
  if (!session.person || !kitchenOfTab(session) || window.location.pathname.startsWith('/join/'))
    return (
      <Suspense fallback={<Waiting />}>
        <Door session={session} />
      </Suspense>
    );
  return (
    <Routes>
      <Route element={<Shell onSignOut={forgetAll} />}>
        <Route index element={<TodayPage />} />
        <Route path="recipes" element={<RecipeBook />} />
        <Route path="recipes/begin" element={<BeginPage />} />
        <Route path="recipes/new" element={<RecipeEditor />} />
        <Route path="recipes/paste" element={<PastePage />} />
        <Route path="recipes/exchange" element={<ExchangePage />} />
        <Route path="recipes/ingredients" element={<IngredientsPage />} />
        <Route path="recipes/:recipeId" element={<RecipeSheet />} />
        <Route path="recipes/:recipeId/difference" element={<DifferencePage />} />
        <Route path="recipes/:recipeId/variants" element={<VariantsPage />} />
        <Route path="recipes/:recipeId/change" element={<RecipeEditor />} />
        <Route path="recipes/:recipeId/rehearse" element={<RehearsalPage />} />
        <Route path="recipes/:recipeId/cost" element={<RecipeCostPage />} />
        <Route path="stores" element={<ShelfPage />} />
        <Route path="stores/items/:itemId" element={<ItemPage />} />
        <Route path="stores/lots/:lotId" element={<LotPage />} />
        <Route path="stores/receipts" element={<ReceiptList />} />
        <Route path="stores/receipts/new" element={<ReceiptEntry />} />
        <Route path="stores/receipts/import" element={<ImportPage />} />
        <Route path="stores/receipts/:receiptId" element={<ReceiptPage />} />
        <Route path="stores/shopping" element={<ShoppingPage />} />
        <Route path="stores/offer" element={<OfferPage />} />
        <Route path="costs/:batchId" element={<BatchCostPage />} />
        <Route path="cook" element={<CookList />} />
        <Route path="cook/:batchId" element={<CookPage />} />
        <Route path="cook/:batchId/write-up" element={<WriteUpPage />} />
        <Route path="check" element={<CheckList />} />
        <Route path="check/learned" element={<CheckedPage />} />
        <Route path="check/deviations" element={<DeviationsPage />} />
        <Route path="check/:batchId" element={<CheckPage />} />
        <Route path="label" element={<LabelList />} />
        <Route path="label/:batchId" element={<LabelPage />} />
        <Route path="records" element={<RecordList />} />
        <Route path="records/:batchId" element={<RecordPage />} />
        <Route path="kitchen" element={<KitchenPage />} />
        <Route path="kitchen/instruments" element={<InstrumentsPage />} />
        <Route path="kitchen/people" element={<PeoplePage />} />
        <Route path="account" element={<AccountPage />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Route>
    </Routes>
  );
}
