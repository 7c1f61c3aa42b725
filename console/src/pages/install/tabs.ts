const tabs = ['worklist', 'handover', 'sign-in', 'review', 'runs', 'history'] as const;

/** The tabs of an install beside its matrix. */
export type InstallTab = (typeof tabs)[number];

/** Whether a word names one. */
export const isInstallTab = (word: unknown): word is InstallTab => tabs.some((tab) => tab === word);
