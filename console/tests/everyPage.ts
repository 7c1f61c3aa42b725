import type { Page } from '@playwright/test';

/** Every page that can be gone to in the demo, once an install of it was verified. */
export const everyPage = [
  '/',
  '/installs',
  '/installs/thermograph-dataroom?tab=plan',
  '/installs/thermograph-dataroom?tab=matrix',
  '/installs/thermograph-dataroom?tab=worklist',
  '/installs/thermograph-dataroom?tab=handover',
  '/installs/thermograph-dataroom?tab=review',
  '/installs/thermograph-dataroom?tab=runs',
  '/installs/thermograph-dataroom?tab=history',
  '/installs/thermograph-dataroom?tab=text',
  '/installs/rennet-roster-plants?tab=sign-in',
  '/installs/thermograph-dataroom/accounts/archivist',
  '/runs',
  '/accounts',
  '/groups',
  '/hosts',
  '/estates/fennmoor/hosts/fm-temp01',
  '/instances',
  '/estates/fennmoor/instances/fm-sql01',
  '/ous',
  '/policies',
  '/estates/fennmoor/policies/Default Domain Policy',
  '/trace',
  '/object',
  '/filter',
  '/passwords',
  '/passwords/fennmoor/svc-archive',
  '/calendar',
  '/reviews',
  '/sheets',
  '/sheets/thermograph@4.2',
  '/estates',
  '/estates/fennmoor',
  '/add/estate',
  '/new-install',
  '/new-sheet',
  '/adoptions',
  '/log',
  '/secrets',
  '/tokens',
  '/notifications',
  '/service',
  '/find?words=temp',
];

/** Waits until a page is there, and nothing more is on its way. */
export async function settled(page: Page) {
  await page.getByRole('heading', { level: 1 }).first().waitFor();
  await page.waitForLoadState('networkidle');
}
