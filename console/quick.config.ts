import tests from './playwright.config';
export default { ...tests, expect: { timeout: 8000 }, timeout: 90000, reporter: 'list' };
