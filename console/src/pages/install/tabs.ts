const tabs = ['plan', 'matrix', 'worklist', 'handover', 'sign-in', 'review', 'runs', 'history', 'text'] as const;

/** The tabs of an install. */
export type InstallTab = (typeof tabs)[number];

/** Whether a word names one. */
export const isInstallTab = (word: unknown): word is InstallTab => tabs.some((tab) => tab === word);

const ofFit: readonly InstallTab[] = ['matrix', 'worklist', 'handover', 'review'];

/** Whether a tab shows something of the fit, and so waits for it. */
export const isOfFit = (tab: InstallTab) => ofFit.includes(tab);
