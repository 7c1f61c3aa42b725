import tests from './playwright.config';
export default { ...tests, expect: { timeout: 15000 }, timeout: 120000, reporter: 'list' };
